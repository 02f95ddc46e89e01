package material

import "errors"

// Why two pieces cannot be merged.
var (
	ErrMergeSelf  = errors.New("a piece cannot be merged with itself")
	ErrMergeSplit = errors.New("a piece in sections cannot be merged")
	ErrMergeOther = errors.New("a piece cannot be merged with one for another instrument")
)

// MayMerge says why a piece cannot be put in the place of another, nil where it can; split are those that are split into sections.
func MayMerge(m, into Material, split map[string]bool) error {
	switch {
	case into.ID == m.ID:
		return ErrMergeSelf
	case into.Instrument != m.Instrument:
		return ErrMergeOther
	case split[m.ID] || split[into.ID] || m.PartOf != "" || into.PartOf != "":
		return ErrMergeSplit
	}
	return nil
}
