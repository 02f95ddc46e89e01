package musicxml

import (
	"fmt"

	"patientladder/core/notation/score"
)

// heading reads one of the title elements. A movement's title wins over the
// work's: in a collection the work is the book.
func (r *reader) heading(el element) error {
	switch el.name {
	case "movement-title":
		s, err := r.value()
		if s != "" {
			r.score.Title = s
		}
		return err
	case "credit":
		return r.skip() // printed text on the page; titles come from work and movement
	}
	return r.children(func(el element) error {
		switch el.name {
		case "work-title":
			s, err := r.value()
			if r.score.Title == "" {
				r.score.Title = s
			}
			return err
		case "creator":
			s, err := r.value()
			if kind := attr(el, "type"); r.score.Composer == "" && (kind == "composer" || kind == "") {
				r.score.Composer = s
			}
			return err
		}
		return r.skip()
	})
}

func (r *reader) partList() error {
	return r.children(func(el element) error {
		if el.name != "score-part" {
			return r.skip() // groups are brackets on the page
		}
		part := score.Part{ID: attr(el, "id"), Staves: 1}
		if part.ID == "" {
			return &Error{What: "a part in the part list has no id", Line: r.line()}
		}
		if _, twice := r.parts[part.ID]; twice {
			return &Error{What: fmt.Sprintf("the part list names part %q twice", short(part.ID)), Line: r.line()}
		}
		if len(r.score.Parts) >= r.limits.Parts {
			return &Error{What: fmt.Sprintf("the score has more than %d parts", r.limits.Parts), Line: r.line()}
		}
		err := r.children(func(el element) error {
			if el.name != "part-name" {
				return r.skip()
			}
			name, err := r.value()
			part.Name = name
			return err
		})
		r.parts[part.ID] = len(r.score.Parts)
		r.score.Parts = append(r.score.Parts, part)
		return err
	})
}
