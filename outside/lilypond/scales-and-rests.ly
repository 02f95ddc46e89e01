\version "2.22.0"
% Semiquavers, double dots, rests of every length and a change of key.
\score {
  \new Staff \relative c' { \key c \major \time 4/4 c16 d e f g8 a b4 r4 | c2.. r8 | r2 r4 r8 c16 r | \key a \major a4 gis fis e | cis1 | }
}
