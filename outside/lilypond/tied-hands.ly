\version "2.22.0"
% Two staves in F: ties in both hands, three in a bar and then four.
\score {
  \new PianoStaff <<
    \new Staff \relative c'' { \clef treble \key f \major \time 3/4 f8 g bes4 c~ | c2. | \time 4/4 a4 g8 f e4 f~ | f1 | }
    \new Staff \relative c { \clef bass \key f \major \time 3/4 f8 e d c bes a | f2.~ | \time 4/4 f2 c' | f,1 | }
  >>
}
