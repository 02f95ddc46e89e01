package api

import (
	"bytes"
	"context"
	"errors"
	"fmt"
	"path"
	"sort"
	"strings"

	"github.com/oklog/ulid/v2"

	"patientladder/api/contract"
	"patientladder/core/leap"
	"patientladder/core/material"
	"patientladder/core/musicxml"
	"patientladder/core/pattern"
	"patientladder/core/reading"
	"patientladder/core/score"
	"patientladder/store"
)

// ListMaterials returns the library, by source and order.
func (s *Server) ListMaterials(ctx context.Context, r contract.ListMaterialsRequestObject) (contract.ListMaterialsResponseObject, error) {
	lib, err := s.store.Library(ctx, actor(ctx).studio)
	if err != nil {
		return nil, err
	}
	list := []material.Material{}
	for _, m := range lib {
		if r.Params.Instrument == "" || string(r.Params.Instrument) == m.Instrument {
			list = append(list, m)
		}
	}
	sort.Slice(list, func(a, b int) bool {
		x, y := list[a], list[b]
		if x.Source != y.Source {
			return x.Source < y.Source
		}
		if x.Order != y.Order {
			return x.Order < y.Order
		}
		return x.ID < y.ID
	})
	out := make(contract.ListMaterials200JSONResponse, len(list))
	for i, m := range list {
		out[i] = brief(m)
	}
	return out, nil
}

// AddMaterial reads a score and adds it to the library as a material.
func (s *Server) AddMaterial(ctx context.Context, r contract.AddMaterialRequestObject) (contract.AddMaterialResponseObject, error) {
	n := r.Body
	// A compressed score is kept unpacked: the page engraves it as it is.
	data, err := musicxml.Unpack(n.Score, musicxml.DefaultLimits())
	var sc *score.Score
	if err == nil {
		sc, err = musicxml.Read(data)
	}
	if err != nil {
		var where *musicxml.Error
		if errors.As(err, &where) {
			return nil, invalid(fmt.Sprintf("“%s” was not added: %s.", n.FileName, where))
		}
		return nil, err
	}
	if len(sc.Sounding()) == 0 {
		return nil, invalid(fmt.Sprintf("“%s” was not added: it holds no notes.", n.FileName))
	}
	m := material.Material{ID: n.Id, Title: strings.TrimSpace(n.Title), Strand: material.Strand(n.Strand), Instrument: string(n.Instrument)}
	m = s.demands.Describe(m, sc)
	m.Title, m.Composer = shorten(m.Title), shorten(m.Composer)
	if m.Title == "" {
		m.Title = shorten(strings.TrimSuffix(n.FileName, path.Ext(n.FileName)))
	}
	focus := n.FocusPoints
	if len(focus) == 0 {
		focus = material.UsualFocus(m.Instrument)
	}
	for _, text := range focus {
		m.FocusPoints = append(m.FocusPoints, material.FocusPoint{ID: ulid.Make().String(), Text: strings.TrimSpace(text)})
	}
	if _, err := s.store.AddMaterial(ctx, actor(ctx).studio, m, &store.ScoreFile{Name: shorten(n.FileName), Data: data}); err != nil {
		return nil, err
	}
	return contract.AddMaterial201JSONResponse(brief(m)), nil
}

// shorten keeps a name within its column.
func shorten(s string) string {
	const most = 200
	if r := []rune(s); len(r) > most {
		return string(r[:most-1]) + "…"
	}
	return s
}

// GetScore returns the file as the teacher brought it.
func (s *Server) GetScore(ctx context.Context, r contract.GetScoreRequestObject) (contract.GetScoreResponseObject, error) {
	file, err := s.store.ScoreFile(ctx, actor(ctx).studio, r.Material)
	if err != nil {
		return nil, err
	}
	return contract.GetScore200ApplicationvndRecordareMusicxmlXmlResponse{Body: bytes.NewReader(file.Data), ContentLength: int64(len(file.Data))}, nil
}

// GetMaterial returns a piece as it was read, and its leap for a student.
func (s *Server) GetMaterial(ctx context.Context, r contract.GetMaterialRequestObject) (contract.GetMaterialResponseObject, error) {
	b, err := s.book(ctx)
	if err != nil {
		return nil, err
	}
	m, ok := b.lib[r.Material]
	if !ok {
		return nil, errNoMaterial
	}
	out := contract.Piece{
		Material: brief(m), Tempo: m.Tempo, Texture: string(m.Texture), Bars: m.Bars, DistinctBars: m.DistinctBars,
		BarLabels: []string{}, Lines: []contract.Line{}, Marks: []contract.MoveMark{}, Patterns: []contract.Pattern{},
		Skipped: []contract.Skip{}, Demands: []contract.Demand{}, FocusPoints: []string{}, HasScore: m.Bars > 0,
	}
	for i := 1; i <= m.Bars; i++ {
		out.BarLabels = append(out.BarLabels, m.BarLabel(i))
	}
	for _, d := range m.Demands {
		out.Demands = append(out.Demands, contract.Demand{Skill: d.Skill, Name: s.skills.Name(d.Skill), Weight: d.Weight, Where: m.BarsName(d.Bars), Origin: d.Origin})
	}
	for _, f := range m.FocusPoints {
		out.FocusPoints = append(out.FocusPoints, f.Text)
	}
	if r.Params.Ladder != "" {
		if err := s.forStudent(ctx, b, m, r.Params.Ladder, &out); err != nil {
			return nil, err
		}
	}
	sc, err := s.score(ctx, b.studio.ID, m)
	if err != nil {
		return nil, err
	}
	if sc != nil {
		read(&out, sc, m)
	}
	out.Sentence = pieceSentence(out, m)
	return contract.GetMaterial200JSONResponse(out), nil
}

// forStudent adds what the piece asks of one student: as it was when the
// student began it, or as it would be now.
func (s *Server) forStudent(ctx context.Context, b book, m material.Material, ladderID string, out *contract.Piece) error {
	l, err := s.store.Ladder(ctx, b.studio.ID, ladderID)
	if err != nil {
		return err
	}
	sh, err := s.open(ctx, b, l)
	if err != nil {
		return err
	}
	v, err := s.view(ctx, sh)
	if err != nil {
		return err
	}
	out.Reach = v.Reach.Size
	asked := s.policy.Leap.Of(m, sh.standing.Ability)
	for _, rail := range v.Rails {
		for _, rung := range rail.Rungs {
			if rung.Material.ID == m.ID {
				out.OnLadder = true
				if rung.Standing != nil {
					asked = rung.Leap
				}
			}
		}
	}
	out.Leap = s.leap(m, asked)
	return nil
}

// read fills in what the score itself says.
func read(out *contract.Piece, sc *score.Score, m material.Material) {
	family, _ := material.FamilyOf(m.Instrument)
	if b := sc.Bars[0]; b.BeatUnit > 0 {
		out.Time = fmt.Sprintf("%d/%d", b.Beats, b.BeatUnit)
	}
	out.Key = sc.Bars[0].KeyName()
	above := make([]int, len(sc.Parts)) // staves of the parts above
	for i := 1; i < len(sc.Parts); i++ {
		above[i] = above[i-1] + sc.Parts[i-1].Staves
	}
	place := func(i int) (bar, staff int, at float64, pitch int) {
		n := sc.Notes[i]
		return n.Bar, above[n.Part] + n.Staff - 1, n.Onset.Sub(sc.Bars[n.Bar-1].Start).Float(), n.Pitch.Semitone()
	}
	for _, l := range reading.Lines(sc, family == material.Keyboard) {
		line := contract.Line{Hand: string(l.Hand), Part: sc.Parts[l.Part].Name, Staff: above[l.Part] + l.Staff - 1, Notes: []contract.UsedNote{}}
		if st, ok := reading.FindStart(sc, l); ok {
			line.Start = contract.Start{
				Hand: string(st.Hand), Finger: st.Finger, FingerGiven: st.FingerGiven, Key: st.Key,
				BlackKey: st.BlackKey, WeakFinger: st.WeakFinger, Words: st.Words(),
			}
		}
		for _, u := range reading.NotesUsed(sc, l) {
			line.Notes = append(line.Notes, contract.UsedNote{Pitch: u.Pitch, Midi: u.MIDI, Count: u.Count, FirstBar: u.FirstBar})
		}
		for _, mv := range reading.Moves(sc, l) {
			count(&line, mv)
			mark := contract.MoveMark{
				Direction: contract.MoveMarkDirection(mv.Direction), Kind: contract.MoveMarkKind(mv.Kind),
				Number: mv.Interval.Number, Quality: mv.Interval.Quality,
			}
			mark.Bar, mark.Staff, mark.At, mark.Pitch = place(mv.To)
			mark.FromBar, _, mark.FromAt, mark.FromPitch = place(mv.From)
			out.Marks = append(out.Marks, mark)
		}
		out.Lines = append(out.Lines, line)
	}
	for _, p := range pattern.Of(sc).Patterns {
		out.Patterns = append(out.Patterns, contract.Pattern{Letter: p.Letter, Bars: p.Bars})
	}
	for _, sk := range sc.Skipped {
		out.Skipped = append(out.Skipped, contract.Skip{What: sk.What, Where: sk.Where, Count: sk.Count})
	}
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

func pieceSentence(p contract.Piece, m material.Material) string {
	if !p.HasScore {
		return "It has no score; what it asks for was set by hand."
	}
	out := capital(counted(p.Bars, "bar"))
	if p.DistinctBars < p.Bars {
		out += fmt.Sprintf(", made of %s", counted(p.DistinctBars, "different one"))
	}
	if len(p.Leap.Parts) > 0 {
		var fresh []string
		for _, part := range p.Leap.Parts {
			if part.Level == contract.LeapPartLevel(leap.New) || part.Level == contract.LeapPartLevel(leap.Planted) {
				fresh = append(fresh, part.Name)
			}
		}
		switch n := len(fresh); {
		case n == 0:
			out += "; nothing in it is new"
		case n > 4:
			out += fmt.Sprintf("; new in it: %s and %s more", strings.Join(fresh[:3], ", "), fmt.Sprint(n-3))
		default:
			out += "; new in it: " + strings.Join(fresh, ", ")
		}
	}
	return out + "."
}
