\version "2.22.0"
% One staff in D with quavers, a triplet, a dotted rhythm, a rest and a tie.
\score {
  \new Staff \relative c' { \key d \major \time 4/4 d4 e fis g | a8 b cis4 d2 | \times 2/3 { d8 cis b } a4 r2 | d,4. e8 fis2~ | fis1 | }
}
