package score

import "fmt"

// FileError says in one sentence what is wrong with a file and where. Every
// reader of a file format returns its errors as a *FileError.
type FileError struct {
	// What is wrong, in a teacher's words.
	What string
	// Where it is: "part P1, bar 3", or empty for the whole file.
	Where string
	// Line of the file, from 1; 0 when it does not apply.
	Line int
}

// Error writes the sentence: where, line, what.
func (e *FileError) Error() string {
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

// Limits bound what a file may ask of a reader.
type Limits struct {
	// Bytes is the largest file. Default 12 MiB; a long orchestral movement is about 5.
	Bytes int
	// Depth is the deepest nesting of elements. MusicXML itself needs about 12. Default 64.
	Depth int
	// Notes is the largest number of notes and rests. Default 200,000.
	Notes int
	// Bars is the largest number of bars in a part. Default 20,000.
	Bars int
	// Parts is the largest number of parts. Default 100.
	Parts int
	// Quarters is the longest single duration in quarter notes. Default 4,096.
	Quarters int64
	// Tunes is the largest number of tunes in one file. Default 500.
	Tunes int
}

// Bounds of a score, the same where it is read, kept, and asked about.
const (
	MostNotes = 200_000
	MostBars  = 20_000
)

// Bounds of a piece that is brought into a library: what is read, drawn and planned for. Ten times the longest sonata; a
// page of such a piece is some five megabytes.
const (
	MostNotesOfAPiece = 24_000
	MostBarsOfAPiece  = 4_096
)

// TooLong says of a piece that it is longer than a library takes; nil for one that is not. The error is a *FileError.
func (s *Score) TooLong() error {
	switch {
	case len(s.Notes) > MostNotesOfAPiece:
		return &FileError{
			What: fmt.Sprintf(
				"it has %d notes and rests; a piece may have %d at most. Bring its movements one by one",
				len(s.Notes),
				MostNotesOfAPiece,
			),
		}
	case len(s.Bars) > MostBarsOfAPiece:
		return &FileError{
			What: fmt.Sprintf("it has %d bars; a piece may have %d at most. Bring its movements one by one", len(s.Bars), MostBarsOfAPiece),
		}
	}
	return nil
}

// DefaultLimits are the limits that the readers use.
func DefaultLimits() Limits {
	return Limits{Bytes: 12 << 20, Depth: 64, Notes: MostNotes, Bars: MostBars, Parts: 100, Quarters: 4096, Tunes: 500}
}

// Short keeps a quoted piece of a hostile file from filling the message.
func Short(s string) string {
	const most = 24
	i := 0
	for at := range s {
		if i == most {
			return s[:at] + "…"
		}
		i++
	}
	return s
}
