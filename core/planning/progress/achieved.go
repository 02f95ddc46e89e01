package progress

import (
	"cmp"
	"slices"
	"strings"
	"time"

	"patientladder/core/library/material"
	"patientladder/core/planning/studentplan"
	"patientladder/core/student/standing"
	"patientladder/core/technique/exercise"
)

// Learned is a piece that a student has learned.
type Learned struct {
	Material string
	// Day on which it was cleared; Before says that this was before the log began, and about then.
	Day    time.Time
	Before bool
	// Polished says that it was ready to be performed.
	Polished bool
	// Seconds it takes; 0 where nobody knows.
	Seconds int
}

// Repertoire are the learned pieces, the latest first: no technique, no stages of reading, no sections of a whole.
func Repertoire(s studentplan.Student) []Learned {
	var out []Learned
	for _, id := range s.Standing.In(standing.Cleared, standing.Polished) {
		m, ms := s.Library[id], s.Standing.Materials[id]
		if m.Strand == material.Technique || m.Strand == material.Reading || m.PartOf != "" || m.ID == "" {
			continue
		}
		out = append(out, Learned{
			Material: id, Day: s.Local(ms.ClearedAt), Before: ms.Why == standing.FromBefore, Polished: ms.State == standing.Polished,
			Seconds: Seconds(m),
		})
	}
	slices.SortStableFunc(out, func(a, b Learned) int { return cmp.Or(b.Day.Compare(a.Day), strings.Compare(a.Material, b.Material)) })
	return out
}

// Seconds is how long a piece takes at its tempo; 0 where nobody knows.
func Seconds(m material.Material) int {
	if m.Tempo <= 0 {
		return 0
	}
	return int(60*m.Quarters/m.Tempo + 0.5)
}

// Certificate is a book or a staircase that was gone through to its end.
type Certificate struct {
	// ID is the source's, or the type's of the exercises.
	ID string
	// Title of the book, or name of the staircase; Count is of how many pieces or steps.
	Title     string
	Count     int
	Staircase bool
	// Day on which the last of it was cleared.
	Day time.Time
}

// leastBook is of how many pieces a book is worth a certificate (default).
const leastBook = 3

// CertificateOf is the certificate of one book or staircase; ok is false where it was not gone through to its end.
func CertificateOf(s studentplan.Student, id string) (c Certificate, ok bool) {
	for _, c := range Certificates(s) {
		if c.ID == id {
			return c, true
		}
	}
	return Certificate{}, false
}

// Certificates are the books of which every piece is learned, and the staircases of technique that are climbed, the
// latest first.
func Certificates(s studentplan.Student) []Certificate {
	type book struct {
		Certificate
		open bool
	}
	books := map[string]*book{}
	for id, m := range s.Library {
		if m.SourceID == "" || m.PartOf != "" || m.Instrument != s.Instrument || m.Source == "" {
			continue
		}
		b := books[m.SourceID]
		if b == nil {
			b = &book{Certificate: Certificate{ID: m.SourceID, Title: m.Source}}
			books[m.SourceID] = b
		}
		b.Count++
		ms := s.Standing.Materials[id]
		if ms == nil || ms.State != standing.Cleared && ms.State != standing.Polished {
			b.open = true
			continue
		}
		if day := s.Local(ms.ClearedAt); day.After(b.Day) {
			b.Day = day
		}
	}
	var out []Certificate
	for _, b := range books {
		if !b.open && b.Count >= leastBook {
			out = append(out, b.Certificate)
		}
	}
	for _, st := range exercise.Climb(s.OnInstrument(), s.Progress(), exercise.Wish{}) {
		if st.At < len(st.Steps) {
			continue
		}
		c := Certificate{ID: st.Type.ID, Title: st.Type.Name, Count: len(st.Steps), Staircase: true}
		for _, id := range s.Standing.In(standing.Cleared, standing.Polished) {
			if kind, _, _ := strings.Cut(s.Library[id].Exercise, "/"); kind == st.Type.ID {
				if day := s.Local(s.Standing.Materials[id].ClearedAt); day.After(c.Day) {
					c.Day = day
				}
			}
		}
		if !c.Day.IsZero() { // one that is known from pieces alone was not climbed
			out = append(out, c)
		}
	}
	slices.SortFunc(out, func(a, b Certificate) int {
		return cmp.Or(b.Day.Compare(a.Day), strings.Compare(a.Title, b.Title))
	})
	return out
}
