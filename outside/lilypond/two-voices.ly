\version "2.22.0"
% Two voices on one staff in A minor, one held under the other.
\score {
  \new Staff \relative c'' { \key a \minor \time 2/4 << { a4 b | c4 b | gis4 a | } \\ { e2 | e4 d | e2 | } >> a2 | }
}
