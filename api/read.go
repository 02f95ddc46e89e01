package api

import (
	"context"
	"errors"
	"fmt"

	"patientladder/core/library/instrument"
	"patientladder/core/library/material"
	"patientladder/core/notation/score"
	"patientladder/core/notation/scorefile"
	"patientladder/core/reading/analysis"
	"patientladder/core/reading/demand"
	"patientladder/core/reading/overrule"
	"patientladder/store"
)

// opened is the score of a material as it is read: with what the teacher set.
type opened struct {
	*analysis.Piece
	format scorefile.Format
	file   store.ScoreFile
	own    []overrule.Overruling
	set    overrule.Set
}

// read opens the score of a material; nil when it has none.
func (s *Server) read(ctx context.Context, studio string, m material.Material) (*opened, error) {
	if !m.HasScore {
		return nil, nil
	}
	file, err := s.store.ScoreFile(ctx, studio, m.ID)
	if err != nil {
		return nil, err
	}
	own, err := s.store.Overrulings(ctx, studio, m.ID)
	if err != nil {
		return nil, err
	}
	return readFile(file, m.Instrument, own)
}

// readFile reads a kept file with what the teacher set.
func readFile(file store.ScoreFile, instrument string, own []overrule.Overruling) (*opened, error) {
	format, pieces, err := scorefile.Pieces(file.Data, keyboard(instrument))
	if err != nil {
		return nil, err
	}
	o := &opened{format: format, file: file, own: own}
	o.set = overrule.Apply(pieces[0], own)
	o.Piece = analysis.Of(pieces[0], instrument)
	return o, nil
}

func keyboard(player string) bool {
	family, _ := instrument.FamilyOf(player)
	return family == instrument.Keyboard
}

// described fills a material in from a score and from what the teacher set.
func described(m material.Material, o *opened, table demand.Table) material.Material {
	if o.set.Tempo > 0 {
		m.Tempo = o.set.Tempo
	} else {
		m.Tempo = 0 // the score's own
	}
	had, composer := m.HasScore, m.Composer
	m = table.Describe(m, o.Piece)
	if had {
		m.Composer = composer // what the teacher left empty stays empty
	}
	m.Demands = o.set.Demanded(m.Demands)
	m.Music = overrule.Print(o.Score)
	return m
}

// pieceOf reads one piece of an uploaded file and what has to be kept of it.
func pieceOf(name string, data []byte, piece int, instrument string) (kept []byte, sc *score.Score, err error) {
	_, pieces, err := scorefile.Pieces(data, keyboard(instrument))
	if err != nil {
		return nil, nil, unread(name, err)
	}
	if piece >= len(pieces) {
		return nil, nil, invalid(fmt.Sprintf("“%s” holds %s; there is no number %d.", name, counted(len(pieces), "piece"), piece+1))
	}
	sc = pieces[piece]
	if len(sc.Sounding()) == 0 {
		return nil, nil, invalid(fmt.Sprintf("“%s” was not taken: it holds no notes.", name))
	}
	kept, err = scorefile.Keep(data, piece)
	if err != nil {
		return nil, nil, unread(name, err)
	}
	return kept, sc, nil
}

// unread turns a reader's error into an answer.
func unread(name string, err error) error {
	var where *score.FileError
	if errors.As(err, &where) {
		return invalid(fmt.Sprintf("“%s” cannot be read: %s.", name, where))
	}
	return err
}
