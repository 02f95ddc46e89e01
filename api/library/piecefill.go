package library

import (
	"context"
	"slices"
	"strings"

	"patientladder/api/answer"
	"patientladder/api/contract"
	"patientladder/app/open"
	"patientladder/core/library/instrument"
	"patientladder/core/library/material"
	"patientladder/core/notation/score"
	"patientladder/core/planning/proposing"
	"patientladder/core/planning/studentplan"
	"patientladder/core/reading/analysis"
	"patientladder/core/reading/chunk"
	"patientladder/core/reading/load"
	"patientladder/core/reading/mood"
	"patientladder/core/reading/reading"
	"patientladder/core/student/leap"
	"patientladder/core/wording"
)

// readyFor says of every student of the instrument whether the piece can come now.
func (h *Handlers) readyFor(ctx context.Context, b open.Studio, m material.Material) ([]proposing.Ready, error) {
	all, err := h.Students(ctx, b, m.Instrument)
	if err != nil {
		return nil, err
	}
	students := make([]studentplan.Student, len(all))
	for i, s := range all {
		students[i] = s.Student
	}
	return proposing.WhoIsReady(students, m), nil
}

func readyOut(n wording.Names, list []proposing.Ready) []contract.Ready {
	out := []contract.Ready{}
	for _, r := range list {
		out = append(
			out,
			contract.Ready{
				Ladder: r.Ladder,
				Name:   r.Name,
				Leap:   r.Leap.Size,
				Ready:  r.Leap.Ready,
				State:  contract.ReadyState(r.Kind),
				Words:  n.Ready(r),
			},
		)
	}
	return out
}

// loads writes how hard a piece is in each dimension, beside what the student brings.
func loads(out *contract.Piece, m material.Material, policy leap.Policy, brought leap.Brought) {
	out.Loads, out.HardBars = []contract.PieceLoad{}, []int{}
	difficulty, measured := m.Difficulty()
	if !measured {
		return
	}
	out.Difficulty = difficulty
	family, _ := instrument.FamilyOf(m.Instrument)
	profile := policy.Profile(&m, brought)
	for _, x := range profile {
		l := contract.PieceLoad{
			Dimension: string(x.Dimension), Name: wording.Dimension(x.Dimension), Words: wording.HowMuch(x.Dimension, x.Value, family), Worth: x.Worth,
			Known: x.Known, Above: x.Above, Bars: append([]int{}, x.Bars...), Where: m.BarsName(x.Bars),
		}
		if x.Known {
			l.Secure, l.SecureWords = x.SecureWorth, wording.HowMuch(x.Dimension, x.Secure, family)
		}
		out.Loads = append(out.Loads, l)
	}
	out.HardBars = leap.Hardest(profile, m.Bars)
}

// known says which notes a student knows by itself.
type known map[string]bool

func (k known) note(p score.Pitch) bool { return k[p.String()] }

// fill writes everything that the score says into the answer.
func fill(b open.Studio, out *contract.Piece, o *open.Score, m material.Material, k known) {
	sc, words := o.Score, b.Words
	at := answer.PlacesOf(sc)
	out.Time, out.Format = sc.Bars[0].TimeName(), string(o.Format)
	out.Key = words.Text(wording.Key(o.Key, words.KeyOf))
	out.Pace = wording.AtTempo(load.PaceOf(sc, m.Tempo))
	out.KeyWhy = words.Text(strings.Join(o.Key.Why, "; "))
	if !open.Keyboard(m.Instrument) {
		out.OpenStrings = instrument.Tuning(m.Instrument)
	}
	for i := range o.Lines {
		out.Lines = append(out.Lines, line(b, out, o, &o.Lines[i], at, k))
	}
	if len(sc.Parts) > 1 {
		for i, part := range sc.Parts {
			out.Parts = append(out.Parts, contract.ScorePart{Name: wording.ScorePart(part.Name, i), Played: o.Plays[i]})
		}
		out.AskPart = o.AskPart
	}
	for _, x := range mood.Of(o.Piece, m.Tempo) {
		if !slices.Contains(m.Tags, x.Tag) {
			out.Proposed = append(out.Proposed, contract.ProposedTag{Tag: x.Tag, Why: x.Why})
		}
	}
	out.Varied = o.Load.Varied
	for _, p := range o.Load.Patterns {
		out.Patterns = append(
			out.Patterns,
			contract.Pattern{Letter: p.Letter, Bars: p.Bars, Like: p.Like, How: contract.PatternHow(p.How), Steps: p.Steps},
		)
	}
	motifs(out, o, at)
	chunks(out, o.Chunks(out.LeafBars, o.Set.Borders), o.Set.Borders, m)
	out.Sounds, out.Beats = answer.Sounds(sc), answer.Beats(sc)
	for _, bar := range sc.Bars {
		out.BarTimes = append(out.BarTimes, contract.PieceBar{Start: bar.Start.Float(), Length: bar.Length.Float(), Beat: bar.Beat().Float()})
	}
	out.Playing, out.PlayingWhy = wording.PlayingTime(
		o.Time.Low,
		o.Time.High,
	), wording.Capital(
		words.Text(strings.ReplaceAll(o.Time.Why, "quarter note", "crotchet")),
	)+"."
	lost := map[string]bool{}
	for _, x := range o.Set.Lost {
		lost[x.Key()] = true
	}
	for _, x := range o.Own {
		out.Overruled = append(out.Overruled, contract.Overruled{Key: x.Key(), Words: b.Names().Overruled(x, m), Lost: lost[x.Key()]})
	}
	out.Skipped = skips(sc)
}

func skips(sc *score.Score) []contract.Skip {
	out := []contract.Skip{}
	for _, sk := range sc.Skipped {
		where := sk.Where
		if n := len(sk.Bars); n == 1 {
			where = "bar " + sk.Bars[0]
		} else if n > 1 {
			where = "bars " + strings.Join(sk.Bars, ", ")
		}
		out = append(out, contract.Skip{What: sk.What, Where: where, Count: sk.Count, Mended: len(sk.Bars) > 0})
	}
	return out
}

func line(b open.Studio, out *contract.Piece, o *open.Score, l *analysis.Line, at answer.Places, k known) contract.Line {
	sc, words := o.Score, b.Words
	line := contract.Line{
		Hand: string(l.Hand), Part: sc.Parts[l.Part].Name, Staff: at.Staff(l.Part, l.Staff), Notes: []contract.UsedNote{}, Sure: l.Position.Sure,
		DistinctBars: l.Load.Distinct,
		Positions:    []contract.HandPosition{}, Shifts: []contract.Shift{}, Stretches: append([]int{}, l.Position.Stretches...),
		Fingers: []contract.NoteFinger{}, Guides: []contract.Guide{},
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
	n := reading.CountOf(l.Moves)
	line.Counts = contract.MoveCounts{Up: n.Up, Down: n.Down, Same: n.Same, Step: n.Step, Skip: n.Skip, Leap: n.Leap}
	for _, mv := range l.Moves {
		mark := contract.MoveMark{
			Direction: contract.MoveMarkDirection(mv.Direction), Kind: contract.MoveMarkKind(words.Kind(mv.Kind)),
			Number: mv.Interval.Number, Quality: mv.Interval.Quality, Name: words.Note(sc.Notes[mv.To].Pitch.Name()),
		}
		mark.Bar, mark.Staff, mark.At, mark.Pitch = at.Note(mv.To)
		mark.FromBar, _, mark.FromAt, mark.FromPitch = at.Note(mv.From)
		out.Marks = append(out.Marks, mark)
	}
	until := l.Position.Until(sc.Length())
	for i, p := range l.Position.Positions {
		line.Positions = append(
			line.Positions,
			contract.HandPosition{
				Name:    words.Position(p.Name),
				Keys:    p.Keys,
				FromBar: p.FromBar,
				ToBar:   p.ToBar,
				Start:   p.From.Float(),
				End:     until[i].Float(),
			},
		)
	}
	for _, x := range l.Position.Shifts {
		line.Shifts = append(
			line.Shifts,
			contract.Shift{Bar: x.Bar, Where: "bar " + sc.BarLabel(x.Bar), From: words.Position(x.From), To: words.Position(x.To), How: x.How},
		)
	}
	for _, f := range l.Position.Fingers {
		x := contract.NoteFinger{
			Finger:    f.Finger,
			String:    f.String,
			Given:     f.Given,
			Own:       o.Set.Fingers[f.Note],
			Part:      l.Part,
			PartStaff: sc.Notes[f.Note].Staff,
			Name:      words.Note(sc.Notes[f.Note].Pitch.Name()),
		}
		x.Bar, x.Staff, x.At, x.Pitch = at.Note(f.Note)
		n := &sc.Notes[f.Note]
		x.AtExact = n.Onset.Sub(sc.Bars[n.Bar-1].Start).String()
		line.Fingers = append(line.Fingers, x)
	}
	for _, g := range reading.Guides(sc, l.Line, k.note) {
		x := contract.Guide{Pitch: words.Note(g.Pitch), Words: words.Guide(g), Bars: g.Bars}
		for _, i := range g.Notes {
			bar, _, when, pitch := at.Note(i)
			x.Notes = append(x.Notes, contract.GuideNote{At: when, Bar: bar, Pitch: pitch})
		}
		line.Guides = append(line.Guides, x)
	}
	return line
}

func motifs(out *contract.Piece, o *open.Score, at answer.Places) {
	for _, m := range o.Motifs {
		x := contract.Motif{Name: m.Name, Staff: at.Staff(m.Part, m.Staff), Beats: m.Beats, Notes: m.Notes}
		for _, p := range m.At {
			x.At = append(x.At, struct {
				Bar   int     `json:"bar"`
				Beat  int     `json:"beat"`
				End   float64 `json:"end"`
				Start float64 `json:"start"`
			}{p.Bar, p.Beat, m.End(o.Score, p).Float(), p.Time.Float()})
		}
		out.Motifs = append(out.Motifs, x)
	}
}

// chunks lists a tree level by level, the smallest chunks first.
func chunks(out *contract.Piece, root chunk.Chunk, own chunk.Borders, m material.Material) {
	for _, c := range root.ByLevel() {
		_, set := own[c.To]
		out.Chunks = append(out.Chunks, contract.Chunk{
			From: c.From, To: c.To, Where: whereOf(m, c.From, c.To, c.Upbeat), Start: c.Start.Float(), End: c.End.Float(), Level: c.Level,
			SameAs: c.SameAs, Why: c.Why, Own: set,
		})
	}
}

// whereOf says a stretch of bars with its upbeat: "bars 3–4 with the upbeat".
func whereOf(m material.Material, from, to int, upbeat bool) string {
	words := m.Span(from, to)
	if upbeat {
		words += " with the upbeat"
	}
	return words
}
