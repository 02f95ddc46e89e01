package musicxml

import "fmt"

// Error says in one sentence what is wrong with a file and where.
type Error struct {
	// What is wrong, in a teacher's words.
	What string
	// Where it is: "part P1, bar 3", or empty for the whole file.
	Where string
	// Line of the file, from 1; 0 when it does not apply.
	Line int
}

// Error writes the sentence: where, line, what.
func (e *Error) Error() string {
	switch {
	case e.Where != "" && e.Line > 0:
		return fmt.Sprintf("%s (line %d): %s", e.Where, e.Line, e.What)
	case e.Where != "":
		return fmt.Sprintf("%s: %s", e.Where, e.What)
	case e.Line > 0:
		return fmt.Sprintf("line %d: %s", e.Line, e.What)
	}
	return e.What
}
