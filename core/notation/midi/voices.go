package midi

import (
	"sort"

	"patientladder/core/base/rational"
	"patientladder/core/notation/score"
)

// mostVoices is the largest number of voices that a staff is divided into.
const mostVoices = 4

// toVoices sorts the notes of each staff into voices in which nothing
// overlaps, chords of equal length together, and fills the first voice with rests.
func toVoices(s *score.Score) {
	type place struct{ part, staff int }
	byStaff := map[place][]score.Note{}
	for _, n := range s.Notes {
		p := place{n.Part, n.Staff}
		byStaff[p] = append(byStaff[p], n)
	}
	s.Notes = s.Notes[:0:0]
	for part := range s.Parts {
		for staff := 1; staff <= s.Parts[part].Staves; staff++ {
			s.Notes = append(s.Notes, voices(s, part, staff, byStaff[place{part, staff}])...)
		}
	}
}

func voices(s *score.Score, part, staff int, notes []score.Note) []score.Note {
	ringOut(notes)
	sort.SliceStable(notes, func(a, b int) bool {
		x, y := &notes[a], &notes[b]
		if c := x.Onset.Cmp(y.Onset); c != 0 {
			return c < 0
		}
		if c := x.Duration.Cmp(y.Duration); c != 0 {
			return c < 0
		}
		return x.MIDI < y.MIDI
	})
	var out [mostVoices][]score.Note
	var ends [mostVoices]rational.Rat
	for i := 0; i < len(notes); {
		j := i + 1
		for j < len(notes) && notes[j].Onset.Cmp(notes[i].Onset) == 0 && notes[j].Duration.Cmp(notes[i].Duration) == 0 {
			j++
		}
		at := -1
		for k := range ends {
			if !notes[i].Onset.Less(ends[k]) {
				at = k
				break
			}
		}
		if at < 0 { // more at once than can be written: the last voice is cut short
			at = mostVoices - 1
			last := out[at]
			for k := len(last) - 1; k >= 0 && notes[i].Onset.Less(last[k].End()); k-- {
				last[k].Duration = notes[i].Onset.Sub(last[k].Onset)
			}
			s.AddSkip("the ends of notes beyond four voices on a staff", score.Place(s.Parts[part].ID, s.BarLabel(notes[i].Bar)))
			for len(out[at]) > 0 && out[at][len(out[at])-1].Duration.IsZero() {
				out[at] = out[at][:len(out[at])-1]
			}
		}
		for k := i; k < j; k++ {
			n := notes[k]
			n.Voice, n.Chord = voiceName(staff, at), k > i
			n.Tuplet = tupletOf(n)
			out[at] = append(out[at], n)
		}
		ends[at] = notes[i].End()
		i = j
	}
	all := withRests(s, part, staff, out[0])
	for _, v := range out[1:] {
		all = append(all, v...)
	}
	return all
}

// ringOut lengthens notes that end a little before the next one begins: many
// programs play them shorter than they are written.
func ringOut(notes []score.Note) {
	onsets := make([]rational.Rat, 0, len(notes))
	for i := range notes {
		onsets = append(onsets, notes[i].Onset)
	}
	sort.Slice(onsets, func(a, b int) bool { return onsets[a].Less(onsets[b]) })
	for i := range notes {
		end := notes[i].End()
		k := sort.Search(len(onsets), func(k int) bool { return !onsets[k].Less(end) })
		if k == len(onsets) {
			continue
		}
		gap := onsets[k].Sub(end)
		if gap.Num() > 0 && gap.Less(rational.New(1, 8)) && gap.Mul(rational.Int(4)).Less(notes[i].Duration) {
			notes[i].Duration = notes[i].Duration.Add(gap)
		}
	}
}

// tupletOf says what tuplet a length or a beginning between the semiquavers belongs to.
func tupletOf(n score.Note) score.Ratio {
	for _, t := range []score.Ratio{{Actual: 3, Normal: 2}, {Actual: 5, Normal: 4}, {Actual: 7, Normal: 4}} {
		if n.Duration.Den()%int64(t.Actual) == 0 {
			return t
		}
	}
	return score.Ratio{}
}

// withRests fills the gaps of a voice.
func withRests(s *score.Score, part, staff int, notes []score.Note) []score.Note {
	var out []score.Note
	var now rational.Rat
	bar := 1
	rest := func(to rational.Rat) {
		for now.Less(to) {
			for bar < len(s.Bars) && !now.Less(s.Bars[bar].Start) {
				bar++
			}
			end := to
			if bar < len(s.Bars) && s.Bars[bar].Start.Less(end) {
				end = s.Bars[bar].Start
			}
			n := score.Note{Rest: true, Onset: now, Duration: end.Sub(now), Part: part, Staff: staff, Voice: voiceName(staff, 0), Bar: bar}
			n.Tuplet = tupletOf(n)
			out = append(out, n)
			now = end
		}
	}
	for _, n := range notes {
		if !n.Chord {
			rest(n.Onset)
		}
		out = append(out, n)
		if now.Less(n.End()) {
			now = n.End()
		}
	}
	rest(s.Length())
	return out
}
