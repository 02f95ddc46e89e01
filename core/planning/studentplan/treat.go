package studentplan

import "patientladder/core/student/standing"

// Treat is what was promised for a piece, or for so many more.
type Treat struct {
	ID, Words string
	// Material earns it when it is cleared; else Pieces more cleared ones than Base.
	Material     string
	Pieces, Base int
	// Given says that it was had.
	Given bool
}

// ClearedPieces counts the pieces that were cleared here, without exercises and sections, and without what was known before.
func (s Student) ClearedPieces() (n int) {
	for _, id := range s.Standing.In(standing.Cleared, standing.Polished) {
		m := s.Library[id]
		if s.Standing.Materials[id].Played() && m.Exercise == "" && m.PartOf == "" {
			n++
		}
	}
	return n
}

// Earned says that a treat is earned, and how many pieces are left until it is.
func (s Student) Earned(t Treat) (earned bool, left int) {
	if t.Material != "" {
		m := s.Standing.Materials[t.Material]
		return m != nil && (m.State == standing.Cleared || m.State == standing.Polished), 0
	}
	left = t.Base + t.Pieces - s.ClearedPieces()
	return left <= 0, max(0, left)
}
