package withfamily

import (
	"errors"

	"patientladder/core/planning/studentplan"
	"patientladder/core/student/standing"
)

// Why a treat cannot be promised.
var (
	ErrTreatWords    = errors.New("the treat is not said")
	ErrTreatFor      = errors.New("what the treat is for is not said")
	ErrTreatMaterial = errors.New("what the treat is for is not in the library")
)

// Treat is what was promised for a piece, or for so many more.
type Treat struct {
	ID, Words string
	// Material earns it when it is cleared; else Pieces more cleared ones than Base.
	Material     string
	Pieces, Base int
	// Given says that it was had.
	Given bool
}

// Promise says why a treat cannot be promised; nil where it can.
func Promise(s studentplan.Student, t Treat) error {
	switch _, there := s.Library[t.Material]; {
	case t.Words == "":
		return ErrTreatWords
	case t.Material == "" && t.Pieces <= 0:
		return ErrTreatFor
	case t.Material != "" && !there:
		return ErrTreatMaterial
	}
	return nil
}

// ClearedPieces counts the pieces that were cleared here, without exercises and sections, and without what was known before.
func ClearedPieces(s studentplan.Student) (n int) {
	for _, id := range s.Standing.In(standing.Cleared, standing.Polished) {
		m := s.Library[id]
		if s.Standing.Materials[id].Played() && m.Exercise == "" && m.PartOf == "" {
			n++
		}
	}
	return n
}

// Earned says that a treat is earned, and how many pieces are left until it is.
func Earned(s studentplan.Student, t Treat) (earned bool, left int) {
	if t.Material != "" {
		m := s.Standing.Materials[t.Material]
		return m != nil && (m.State == standing.Cleared || m.State == standing.Polished), 0
	}
	left = t.Base + t.Pieces - ClearedPieces(s)
	return left <= 0, max(0, left)
}
