\version "2.22.0"
% Compound time in G minor with accidentals outside the key.
\score {
  \new Staff \relative c'' { \key g \minor \time 6/8 g4 a8 bes4 c8 | d4. fis,4. | g8 a bes c d es | d2. | ees4 d8 c8 b c | g2. | }
}
