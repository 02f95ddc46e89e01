package chunk

import (
	"patientladder/core/base/rational"
	"patientladder/core/notation/score"
	"patientladder/core/reading/pattern"
)

// mostBreath is the breath of the plainest border: the end of a section.
const mostBreath = 4

// ofPeriod is how much more music breathes after eight bars of a section, and half as much after four: phrases of old music are
// so long oftener than not (common practice).
const ofPeriod = 1.0

// border is where a chunk may end: after a bar, or at the upbeat within it.
type border struct {
	time   rational.Rat
	upbeat bool
	// breath is how strongly the music breathes there, up to mostBreath; below 0 it runs on.
	breath float64
	why    string
}

// place is one note or rest of the melody and how the next one follows.
type place struct {
	note int
	end  rational.Rat // of the note as written
}

// borders returns the border after every bar, index 0 being the beginning of the piece.
func borders(s *score.Score, load pattern.Load) []border {
	melody := melodyByBar(s)
	byBar := s.NotesByBar()
	crossing := sounding(s)
	letter := make([]string, len(s.Bars)+2)
	for _, p := range load.Patterns {
		for _, b := range p.Bars {
			letter[b] = p.Letter
		}
	}
	hands := handsByBar(s)
	out := make([]border, len(s.Bars)+1)
	first := 1 // the first whole bar, and that of the section
	if len(s.Bars) > 1 && s.Bars[0].Short {
		first = 2
	}
	section := first
	for i := range s.Bars {
		b := &s.Bars[i]
		end := b.Start.Add(b.Length)
		here := border{time: end, why: "a bar line"}
		var next *score.Bar
		if i+1 < len(s.Bars) {
			next = &s.Bars[i+1]
		}
		if last := len(melody[i]) - 1; last >= 0 {
			here.breath, here.why = breathAfter(s, b, melody[i][last])
		} else {
			here.breath, here.why = 2, "a rest"
		}
		switch {
		case next == nil:
			here.breath, here.why = mostBreath, "the end"
		case b.RepeatEnd > 0 || next.RepeatStart || len(b.Endings) != len(next.Endings):
			here.breath, here.why = mostBreath, "the end of a section"
			section = i + 2
		default:
			if hands[i] != hands[i+1] && here.breath < 2 {
				here.breath, here.why = here.breath+1.5, "the hands change"
			}
			if l := letter[i+2]; l != "" && here.breath < 3 && (l == letter[first] || l == letter[section]) {
				here.breath++
				if here.why == "a bar line" {
					here.why = "the beginning comes back"
				}
			}
			if at := i + 2 - section; !crossing[i] && at > 0 { // so many bars of the section lie before
				switch {
				case at%8 == 0:
					here.breath += ofPeriod
				case at%4 == 0:
					here.breath += ofPeriod / 2
				}
			}
			if crossing[i] {
				here.breath -= 2
			}
			if up, ok := upbeat(s, i, melody[i], byBar[i]); ok && up.breath > here.breath {
				here = up
			}
		}
		here.breath = min(here.breath, mostBreath)
		out[i+1] = here
	}
	return out
}

// melodyByBar sorts the notes and rests of the top staff by bar, the upper of two voices.
func melodyByBar(s *score.Score) [][]place {
	out := make([][]place, len(s.Bars))
	for i := range s.Notes {
		n := &s.Notes[i]
		if n.Part != 0 || n.Staff != 1 || n.Grace || n.Chord {
			continue
		}
		list := out[n.Bar-1]
		if k := len(list); k > 0 && !list[k-1].end.Less(n.End()) {
			continue // a second voice below
		}
		out[n.Bar-1] = append(list, place{i, n.End()})
	}
	return out
}

// breathAfter judges the breath after a note of the melody.
func breathAfter(s *score.Score, b *score.Bar, p place) (float64, string) {
	n := &s.Notes[p.note]
	for _, a := range n.Articulations {
		if a == "breath-mark" || a == "caesura" {
			return 3, "a breath mark"
		}
	}
	switch {
	case n.Fermata:
		return 3, "a fermata"
	case n.Rest:
		return 2, "a rest"
	case n.TieStart:
		return -1, "a bar line"
	case n.SlurStop:
		return 1.75, "the end of a slur"
	case !n.Duration.Less(b.Length.Mul(rational.New(1, 2))):
		return 1.5, "a long note"
	}
	return 0, "a bar line"
}

// upbeat looks in the second half of a bar for a breath after which the next
// phrase begins early, with no note held over it.
func upbeat(s *score.Score, bar int, melody []place, inBar []int) (border, bool) {
	b := &s.Bars[bar]
	half := b.Start.Add(b.Length.Mul(rational.New(1, 2)))
	best := border{breath: -1}
	if len(inBar) > 512 { // no bar that is practised
		return best, false
	}
	for k := 0; k+1 < len(melody); k++ {
		end := melody[k].end
		if end.Less(half) || s.Notes[melody[k+1].note].Rest {
			continue
		}
		breath, why := breathAfter(s, b, melody[k])
		if breath < 1.75 || breath <= best.breath { // a long note alone ends no phrase inside a bar
			continue
		}
		free := true
		for _, i := range inBar {
			if n := &s.Notes[i]; !n.Rest && n.Onset.Less(end) && end.Less(n.End()) {
				free = false
				break
			}
		}
		if free {
			best = border{time: end, upbeat: true, breath: breath + 0.25, why: why}
		}
	}
	return best, best.upbeat
}

// sounding says of each bar whether a tie leads out of it.
func sounding(s *score.Score) []bool {
	out := make([]bool, len(s.Bars))
	for i := range s.Notes {
		n := &s.Notes[i]
		b := &s.Bars[n.Bar-1]
		if n.TieStart && n.End().Cmp(b.Start.Add(b.Length)) == 0 {
			out[n.Bar-1] = true
		}
	}
	return out
}

// handsByBar says of each bar which of the first two staves of the first part play, as bits.
func handsByBar(s *score.Score) []byte {
	out := make([]byte, len(s.Bars))
	for i := range s.Notes {
		if n := &s.Notes[i]; n.Part == 0 && !n.Rest && n.Staff <= 2 {
			out[n.Bar-1] |= 1 << n.Staff
		}
	}
	return out
}
