\version "2.22.0"
% Two staves in E flat with ties over the bar line. python-ly miscounts bars
% with chords or with a pickup in two staves, so this piece has neither.
\score {
  \new PianoStaff <<
    \new Staff \relative c' { \clef treble \key es \major \time 3/4 es4 f g | aes2 bes4~ | bes4 c d | es2. | }
    \new Staff \relative c { \clef bass \key es \major \time 3/4 es2. | c2 bes4 | bes,4 bes' aes | es2. | }
  >>
}
