package open

import (
	"context"

	"patientladder/core/library/instrument"
	"patientladder/core/library/material"
	"patientladder/core/notation/scorefile"
	"patientladder/core/planning/inweek"
	"patientladder/core/reading/analysis"
	"patientladder/core/reading/demand"
	"patientladder/core/reading/overrule"
	"patientladder/store"
)

// Score is the score of a material as it is read: with what the teacher set.
type Score struct {
	inweek.Reading
	Format scorefile.Format
	File   store.ScoreFile
	Own    []overrule.Overruling
}

// Read opens the score of a material; nil when it has none. It is shared: nobody writes to it.
func (d *Loader) Read(ctx context.Context, s store.Studio, m material.Material) (*Score, error) {
	if !m.HasScore {
		return nil, nil
	}
	key := keyOf(s.ID, keptScore, s.LibraryVersion, m.ID)
	if kept, ok := d.kept.scores.Get(key); ok {
		return kept, nil
	}
	o, err := d.ReadAnew(ctx, s, m)
	if err == nil && o != nil && len(o.Score.Notes) <= longestKept {
		d.kept.scores.Add(ctx, key, o)
	}
	return o, err
}

// ReadAnew opens the score of a material for whoever writes to it; nil when it has none.
func (d *Loader) ReadAnew(ctx context.Context, s store.Studio, m material.Material) (*Score, error) {
	if !m.HasScore {
		return nil, nil
	}
	file, err := d.Store.ScoreFile(ctx, s.ID, m.ID)
	if err != nil {
		return nil, err
	}
	own, err := d.Store.Overrulings(ctx, s.ID, m.ID)
	if err != nil {
		return nil, err
	}
	return ReadFile(file, m.Instrument, own)
}

// Reader reads scores of a studio for planning.
func (d *Loader) Reader(ctx context.Context, s store.Studio) inweek.Read {
	return func(m material.Material) (*inweek.Reading, error) {
		o, err := d.Read(ctx, s, m)
		if err != nil || o == nil {
			return nil, err
		}
		return &o.Reading, nil
	}
}

// ReadFile reads a kept file with what the teacher set.
func ReadFile(file store.ScoreFile, player string, own []overrule.Overruling) (*Score, error) {
	format, pieces, err := scorefile.Pieces(file.Data, Keyboard(player))
	if err != nil {
		return nil, err
	}
	o := &Score{Format: format, File: file, Own: own}
	o.Set = overrule.Apply(pieces[0], own)
	o.Piece = analysis.OfPart(pieces[0], player, o.Set.Part)
	return o, nil
}

// Keyboard says that an instrument is played at keys.
func Keyboard(player string) bool {
	family, _ := instrument.FamilyOf(player)
	return family == instrument.Keyboard
}

// Described fills a material in from a score and from what the teacher set.
func Described(m material.Material, o *Score, table demand.Table) material.Material {
	m.Tempo = o.Set.Tempo // 0 for the score's own
	had, composer := m.HasScore, m.Composer
	m = table.Describe(m, o.Piece)
	if had {
		m.Composer = composer // what the teacher left empty stays empty
	}
	m.Demands = o.Set.Demanded(m.Demands)
	m.Music = overrule.Print(o.Score)
	return m
}
