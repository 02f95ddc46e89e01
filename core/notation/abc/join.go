package abc

import (
	"sort"
	"strconv"

	"patientladder/core/base/rational"
	"patientladder/core/notation/score"
)

// join puts the voices together: the bars of the first voice with music are
// the bars of the piece, and every note stands where its own voice has it in time.
func (t *tune) join() error {
	var played []*voice
	for _, v := range t.order {
		if err := t.closeBar(v, 0); err != nil {
			return err
		}
		if len(v.bars) > 0 {
			played = append(played, v)
		}
	}
	if len(played) == 0 {
		return t.fail(0, "the tune holds no notes")
	}
	t.setBars(played)
	t.setParts(played)
	starts := make([]rational.Rat, len(t.score.Bars))
	for i, b := range t.score.Bars {
		starts[i] = b.Start
	}
	barAt := func(at rational.Rat) int {
		return max(1, sort.Search(len(starts), func(i int) bool { return at.Less(starts[i]) }))
	}
	for _, v := range played {
		part, staff := t.placeOf(v)
		for _, n := range v.notes {
			n.Part, n.Staff, n.Bar = part, staff, barAt(n.Onset)
			n.Type, n.Dots = score.Notated(n.Duration, n.Tuplet)
			t.score.Notes = append(t.score.Notes, n)
		}
		for _, s := range v.signs {
			s.Part, s.Staff, s.Bar = part, staff, barAt(s.At)
			t.score.Signs = append(t.score.Signs, s)
		}
	}
	return nil
}

// setBars numbers the bars. A short first bar is a pickup, "0"; the second
// half of a bar that was split by a repeat does not count anew.
func (t *tune) setBars(played []*voice) {
	grid := played[0]
	end := grid.open.start
	for _, v := range played[1:] {
		if end.Less(v.open.start) {
			end = v.open.start
		}
		if !sameBars(grid.bars, v.bars) {
			t.score.AddSkip("bar lines of voice “"+v.voiceName()+"” (those of the first voice were taken)", t.where(0))
		}
	}
	number := 0
	var before rational.Rat // what is missing in a short bar before
	for i, b := range grid.bars {
		bar := score.Bar{
			Start: b.start, Length: b.end.Sub(b.start), Beats: b.beats, BeatUnit: b.beatUnit, Fifths: b.key.fifths, Mode: b.key.mode,
			RepeatStart: b.repeatStart, RepeatEnd: b.repeatEnd, Endings: b.endings,
		}
		if i == len(grid.bars)-1 && b.end.Less(end) {
			bar.Length = end.Sub(b.start)
		}
		missing := rational.Rat{}
		if b.beatUnit > 0 {
			nominal := rational.New(4*int64(b.beats), int64(b.beatUnit))
			bar.Short = bar.Length.Less(nominal)
			if bar.Short {
				missing = nominal.Sub(bar.Length)
			}
			if nominal.Less(bar.Length) {
				t.score.AddSkip("bars longer than their time signature (taken as written)", "line "+strconv.Itoa(b.line))
			}
		}
		switch {
		case i == 0 && bar.Short && len(grid.bars) > 1:
			missing = rational.Rat{}
		case i > 0 && bar.Short && !before.IsZero() && bar.Length.Cmp(before) == 0:
			missing = rational.Rat{} // the other half
		default:
			number++
		}
		before = missing
		bar.Label = strconv.Itoa(number)
		t.score.Bars = append(t.score.Bars, bar)
	}
}

func sameBars(a, b []bar) bool {
	if len(a) != len(b) {
		return false
	}
	for i := range a {
		if a[i].end.Cmp(b[i].end) != 0 {
			return false
		}
	}
	return true
}

// setParts makes the parts. Two voices in a treble and a bass clef, and no
// %%score, are the two hands of one part.
func (t *tune) setParts(played []*voice) {
	if t.staves == nil && len(played) == 2 && played[0].firstClef.Sign != "F" && played[1].firstClef.Sign == "F" {
		t.staves = [][][]string{{{played[0].id}, {played[1].id}}}
	}
	var parts [][][]string
	placed := map[string]bool{}
	for _, part := range t.staves {
		var staves [][]string
		for _, staff := range part {
			var ids []string
			for _, id := range staff {
				if v := t.voices[id]; v != nil && len(v.bars) > 0 && !placed[id] {
					placed[id] = true
					ids = append(ids, id)
				}
			}
			if len(ids) > 0 {
				staves = append(staves, ids)
			}
		}
		if len(staves) > 0 {
			parts = append(parts, staves)
		}
	}
	for _, v := range played {
		if !placed[v.id] {
			parts = append(parts, [][]string{{v.id}})
		}
	}
	t.staves = parts
	for i, staves := range parts {
		p := score.Part{ID: "P" + strconv.Itoa(i+1), Staves: len(staves)}
		for _, ids := range staves {
			v := t.voices[ids[0]]
			if p.Name == "" {
				p.Name = v.name
			}
			c := v.firstClef
			if c.Sign == "" {
				c = clefFor(v.notes)
			}
			p.Clefs = append(p.Clefs, c)
		}
		t.score.Parts = append(t.score.Parts, p)
	}
}

// clefFor is the clef of a voice that names none: bass for one that lies below middle C.
func clefFor(notes []score.Note) score.Clef {
	sum, n := 0, 0
	for i := range notes {
		if !notes[i].Rest {
			sum += notes[i].Pitch.StaffStep()
			n++
		}
	}
	if n > 0 && sum < 26*n {
		return clefs["bass"]
	}
	return clefs["treble"]
}

func (t *tune) placeOf(v *voice) (part, staff int) {
	for i, staves := range t.staves {
		for k, ids := range staves {
			for _, id := range ids {
				if id == v.id {
					return i, k + 1
				}
			}
		}
	}
	return 0, 1
}
