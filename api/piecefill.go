package api

import (
	"context"
	"fmt"
	"sort"
	"strings"

	"patientladder/api/contract"
	"patientladder/core/library/instrument"
	"patientladder/core/library/material"
	"patientladder/core/notation/score"
	"patientladder/core/planning/next"
	"patientladder/core/reading/analysis"
	"patientladder/core/reading/chunk"
	"patientladder/core/reading/naming"
	"patientladder/core/reading/overrule"
	"patientladder/core/reading/reading"
	"patientladder/core/student/standing"
)

// knowledge is what a student knows of the page.
type knowledge struct {
	notes map[string]bool
}

func nobody() knowledge { return knowledge{notes: map[string]bool{}} }

func (k knowledge) note(p score.Pitch) bool { return k.notes[p.String()] }

// knows are the notes of every piece but one that the student has cleared.
func (sh shelf) knows(except string) knowledge {
	k := nobody()
	for _, id := range sh.standing.In(standing.Cleared, standing.Polished) {
		if id == except {
			continue
		}
		for _, n := range sh.lib[id].Notes {
			k.notes[n] = true
		}
	}
	return k
}

// readyFor says of every student of the instrument whether the piece can come now.
func (s *Server) readyFor(ctx context.Context, b book, m material.Material) ([]contract.Ready, error) {
	out := []contract.Ready{}
	all, err := s.shelves(ctx, b, m.Instrument)
	if err != nil {
		return nil, err
	}
	for _, sh := range all {
		l := sh.ladder
		asked := sh.policy.Leap.Of(m, sh.standing.Ability)
		reach := sh.policy.Leap.Reach(sh.standing.Taken(sh.lib, ""))
		r := contract.Ready{Ladder: l.ID, Name: l.Name, Leap: asked.Size, Ready: asked.Ready}
		blocked := next.Blocked(m, next.Input{Ability: sh.standing.Ability, Policy: sh.policy.Leap, Skills: b.skills})
		switch ms := sh.standing.Materials[m.ID]; {
		case ms != nil:
			r.State, r.Words = contract.ReadyStateBegun, "has begun it"
			if ms.State == standing.Cleared || ms.State == standing.Polished {
				r.Words = "has cleared it"
			}
		case len(blocked) > 0:
			names := make([]string, 0, 2)
			for _, id := range blocked[:min(len(blocked), 2)] {
				names = append(names, b.skills.Name(id))
			}
			r.State, r.Words = contract.ReadyStateBlocked, "first: "+joined(names)
		case asked.Size <= reach.Size:
			r.State, r.Words = contract.ReadyStateReady, fmt.Sprintf("a leap of %.1f, within %.1f", asked.Size, reach.Size)
		default:
			r.State, r.Words = contract.ReadyStateReach, fmt.Sprintf("a leap of %.1f, over %.1f", asked.Size, reach.Size)
		}
		out = append(out, r)
	}
	order := map[contract.ReadyState]int{contract.ReadyStateReady: 0, contract.ReadyStateReach: 1, contract.ReadyStateBlocked: 2, contract.ReadyStateBegun: 3}
	sort.SliceStable(out, func(i, k int) bool {
		if a, c := order[out[i].State], order[out[k].State]; a != c {
			return a < c
		}
		return out[i].Leap < out[k].Leap
	})
	return out, nil
}

// places tells where notes and bars stand on the page.
type places struct {
	s     *score.Score
	above []int // staves of the parts above
}

func placesOf(s *score.Score) places {
	p := places{s: s, above: make([]int, len(s.Parts))}
	for i := 1; i < len(s.Parts); i++ {
		p.above[i] = p.above[i-1] + s.Parts[i-1].Staves
	}
	return p
}

func (p places) staff(part, staff int) int { return p.above[part] + staff - 1 }

func (p places) note(i int) (bar, staff int, at float64, pitch int) {
	n := &p.s.Notes[i]
	return n.Bar, p.staff(n.Part, n.Staff), n.Onset.Sub(p.s.Bars[n.Bar-1].Start).Float(), n.Pitch.Semitone()
}

// fill writes everything that the score says into the answer.
func (b book) fill(out *contract.Piece, o *opened, m material.Material, k knowledge) {
	sc, words := o.Score, b.studio.Words
	at := placesOf(sc)
	out.Time, out.Key, out.Format = sc.Bars[0].TimeName(), words.Text(keyName(words, sc.Bars[0])), string(o.format)
	if !keyboard(m.Instrument) {
		out.OpenStrings = instrument.Tuning(m.Instrument)
	}
	for i := range o.Lines {
		out.Lines = append(out.Lines, b.line(out, o, &o.Lines[i], at, k))
	}
	for _, p := range o.Load.Patterns {
		out.Patterns = append(out.Patterns, contract.Pattern{Letter: p.Letter, Bars: p.Bars, Like: p.Like, How: contract.PatternHow(p.How), Steps: p.Steps})
	}
	motifs(out, o, at)
	chunks(out, o.Chunks(out.LeafBars, o.set.Borders), o.set.Borders, m)
	for _, x := range sc.Sounding() {
		if !x.Grace {
			out.Sounds = append(out.Sounds, contract.SoundNote{At: x.Onset.Float(), Length: x.Duration.Float(), Midi: x.MIDI, Staff: at.staff(x.Part, x.Staff), Bar: x.Bar})
		}
	}
	for _, bar := range sc.Bars {
		out.BarTimes = append(out.BarTimes, contract.PieceBar{Start: bar.Start.Float(), Length: bar.Length.Float(), Beat: bar.Beat().Float()})
	}
	out.Playing, out.PlayingWhy = playing(o.Time), capital(words.Text(strings.ReplaceAll(o.Time.Why, "quarter note", "crotchet")))+"."
	lost := map[string]bool{}
	for _, x := range o.set.Lost {
		lost[x.Key()] = true
	}
	for _, x := range o.own {
		out.Overruled = append(out.Overruled, contract.Overruled{Key: x.Key(), Words: b.said(x, m), Lost: lost[x.Key()]})
	}
	out.Skipped = skips(sc)
}

// keyName names a key with the studio's note names.
func keyName(w naming.Words, bar score.Bar) string {
	name := bar.KeyName()
	first, rest, _ := strings.Cut(name, " ")
	if len(first) != 1 || w.Notes == "" || w.Notes == naming.Letters {
		return name
	}
	sign := ""
	switch {
	case strings.HasPrefix(rest, "sharp "):
		sign, rest = "#", rest[len("sharp "):]
	case strings.HasPrefix(rest, "flat "):
		sign, rest = "b", rest[len("flat "):]
	}
	return w.Note(first+sign) + " " + rest
}

func skips(sc *score.Score) []contract.Skip {
	out := []contract.Skip{}
	for _, sk := range sc.Skipped {
		out = append(out, contract.Skip{What: sk.What, Where: sk.Where, Count: sk.Count})
	}
	return out
}

// playing says a time as "about 40 s" or "1 to 2 min".
func playing(t analysis.Time) string {
	if t.High < 90 {
		return fmt.Sprintf("%.0f to %.0f seconds", t.Low, t.High)
	}
	clock := func(s float64) string { return fmt.Sprintf("%d:%02d", int(s)/60, int(s)%60) }
	return clock(t.Low) + " to " + clock(t.High) + " minutes"
}

func (b book) line(out *contract.Piece, o *opened, l *analysis.Line, at places, k knowledge) contract.Line {
	sc, words := o.Score, b.studio.Words
	line := contract.Line{
		Hand: string(l.Hand), Part: sc.Parts[l.Part].Name, Staff: at.staff(l.Part, l.Staff), Notes: []contract.UsedNote{}, Sure: l.Position.Sure, DistinctBars: l.Load.Distinct,
		Positions: []contract.HandPosition{}, Shifts: []contract.Shift{}, Stretches: append([]int{}, l.Position.Stretches...), Fingers: []contract.NoteFinger{}, Guides: []contract.Guide{},
	}
	if len(l.Onset) > 0 {
		st := l.Start
		line.Start = contract.Start{
			Hand: string(st.Hand), Finger: st.Finger, FingerGiven: st.FingerGiven, Key: st.Key,
			BlackKey: st.BlackKey, WeakFinger: st.WeakFinger, Words: st.Words(words.Note),
		}
	}
	for _, u := range reading.NotesUsed(sc, l.Line) {
		line.Notes = append(line.Notes, contract.UsedNote{Pitch: words.Note(u.Pitch), Midi: u.MIDI, Count: u.Count, FirstBar: u.FirstBar})
	}
	for _, mv := range l.Moves {
		count(&line, mv)
		mark := contract.MoveMark{
			Direction: contract.MoveMarkDirection(mv.Direction), Kind: contract.MoveMarkKind(words.Kind(mv.Kind)),
			Number: mv.Interval.Number, Quality: mv.Interval.Quality, Name: words.Note(sc.Notes[mv.To].Pitch.Name()),
		}
		mark.Bar, mark.Staff, mark.At, mark.Pitch = at.note(mv.To)
		mark.FromBar, _, mark.FromAt, mark.FromPitch = at.note(mv.From)
		out.Marks = append(out.Marks, mark)
	}
	for _, p := range l.Position.Positions {
		end := at.s.Length().Float()
		line.Positions = append(line.Positions, contract.HandPosition{Name: positionName(words, p.Name), Keys: p.Keys, FromBar: p.FromBar, ToBar: p.ToBar, Start: p.From.Float(), End: end})
		if n := len(line.Positions); n > 1 {
			line.Positions[n-2].End = p.From.Float()
		}
	}
	for _, x := range l.Position.Shifts {
		line.Shifts = append(line.Shifts, contract.Shift{Bar: x.Bar, Where: "bar " + sc.BarLabel(x.Bar), From: positionName(words, x.From), To: positionName(words, x.To), How: x.How})
	}
	for _, f := range l.Position.Fingers {
		x := contract.NoteFinger{Finger: f.Finger, String: f.String, Given: f.Given, Own: o.set.Fingers[f.Note], Part: l.Part, PartStaff: sc.Notes[f.Note].Staff, Name: words.Note(sc.Notes[f.Note].Pitch.Name())}
		x.Bar, x.Staff, x.At, x.Pitch = at.note(f.Note)
		n := &sc.Notes[f.Note]
		x.AtExact = n.Onset.Sub(sc.Bars[n.Bar-1].Start).String()
		line.Fingers = append(line.Fingers, x)
	}
	for _, g := range reading.Guides(sc, l.Line, k.note) {
		x := contract.Guide{Pitch: words.Note(g.Pitch), Words: guideWords(words, g), Bars: g.Bars}
		for _, i := range g.Notes {
			bar, _, when, pitch := at.note(i)
			x.Notes = append(x.Notes, struct {
				At    float64 `json:"at"`
				Bar   int     `json:"bar"`
				Pitch int     `json:"pitch"`
			}{when, bar, pitch})
		}
		line.Guides = append(line.Guides, x)
	}
	return line
}

// positionName says "C position" with the studio's note names.
func positionName(w naming.Words, name string) string {
	note, rest, found := strings.Cut(name, " ")
	if !found || rest != "position" {
		return name
	}
	return w.Note(note) + " " + rest
}

var ordinals = []string{"", "unison", "second", "third", "fourth", "fifth", "sixth", "seventh", "octave"}

// guideWords says "A is a second above G".
func guideWords(w naming.Words, g reading.Guided) string {
	name := func(pitch string) string {
		if pitch == "C4" {
			return "middle " + w.Note("C")
		}
		return w.Note(strings.TrimRight(pitch, "-0123456789"))
	}
	interval := fmt.Sprintf("%dth", g.Interval.Number)
	if g.Interval.Number < len(ordinals) {
		interval = ordinals[g.Interval.Number]
	}
	side := "above"
	if g.Direction == reading.Down {
		side = "below"
	}
	return fmt.Sprintf("%s is a %s %s %s", name(g.Pitch), interval, side, name(g.Guide))
}

func count(l *contract.Line, m reading.Move) {
	switch m.Direction {
	case reading.Up:
		l.Counts.Up++
	case reading.Down:
		l.Counts.Down++
	default:
		l.Counts.Same++
	}
	switch m.Kind {
	case reading.Step:
		l.Counts.Step++
	case reading.Skip:
		l.Counts.Skip++
	case reading.Leap:
		l.Counts.Leap++
	}
}

func motifs(out *contract.Piece, o *opened, at places) {
	for _, m := range o.Motifs {
		x := contract.Motif{Name: m.Name, Staff: at.staff(m.Part, m.Staff), Beats: m.Beats, Notes: m.Notes}
		for _, p := range m.At {
			beat := o.Score.Bars[p.Bar-1].Beat().Float()
			x.At = append(x.At, struct {
				Bar   int     `json:"bar"`
				Beat  int     `json:"beat"`
				End   float64 `json:"end"`
				Start float64 `json:"start"`
			}{p.Bar, p.Beat, p.Time.Float() + float64(m.Beats)*beat, p.Time.Float()})
		}
		out.Motifs = append(out.Motifs, x)
	}
}

// chunks lists a tree level by level, the smallest chunks first.
func chunks(out *contract.Piece, root chunk.Chunk, own chunk.Borders, m material.Material) {
	var walk func(c chunk.Chunk) int
	walk = func(c chunk.Chunk) int {
		level := 0
		for _, p := range c.Parts {
			level = max(level, walk(p)+1)
		}
		_, set := own[c.To]
		out.Chunks = append(out.Chunks, contract.Chunk{
			From: c.From, To: c.To, Where: whereOf(m, c.From, c.To, c.Upbeat), Start: c.Start.Float(), End: c.End.Float(), Level: level, SameAs: c.SameAs, Why: c.Why, Own: set,
		})
		return level
	}
	walk(root)
	sort.SliceStable(out.Chunks, func(a, b int) bool { return out.Chunks[a].Level < out.Chunks[b].Level })
}

// whereOf says a stretch of bars with its upbeat: "bars 3–4 with the upbeat".
func whereOf(m material.Material, from, to int, upbeat bool) string {
	words := m.Span(from, to)
	if upbeat {
		words += " with the upbeat"
	}
	return words
}

// said puts an overruling into words.
func (b book) said(o overrule.Overruling, m material.Material) string {
	switch o.Kind {
	case overrule.Finger:
		if o.Finger == "" {
			return fmt.Sprintf("no finger at a note in %s", m.BarsName(o.Bars))
		}
		return fmt.Sprintf("finger %s at a note in %s", o.Finger, m.BarsName(o.Bars))
	case overrule.Demand:
		if o.Weight == 0 {
			return b.skills.Name(o.Skill) + ": not asked for"
		}
		return fmt.Sprintf("%s: weight %g, %s", b.skills.Name(o.Skill), o.Weight, m.BarsName(o.Bars))
	case overrule.Border:
		if o.Ends {
			return "a chunk ends after " + m.BarsName(o.Bars)
		}
		return "no chunk ends after " + m.BarsName(o.Bars)
	}
	return fmt.Sprintf("tempo: %s %g", b.studio.Words.Text("crotchet"), o.QuartersAMinute)
}
