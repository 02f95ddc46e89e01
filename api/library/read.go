package library

import (
	"errors"
	"fmt"

	"patientladder/app/open"
	"patientladder/app/refusal"
	"patientladder/core/notation/score"
	"patientladder/core/notation/scorefile"
	"patientladder/core/wording"
)

// pieceOf reads one piece of an uploaded file and what has to be kept of it.
func pieceOf(name string, data []byte, piece int, instrument string) (kept []byte, sc *score.Score, err error) {
	_, pieces, err := scorefile.Brought(data, open.Keyboard(instrument))
	if err != nil {
		return nil, nil, unread(name, err)
	}
	if piece >= len(pieces) {
		return nil, nil, refusal.Invalid(
			fmt.Sprintf("“%s” holds %s; there is no number %d.", name, wording.Counted(len(pieces), "piece"), piece+1),
		)
	}
	sc = pieces[piece]
	if len(sc.Sounding()) == 0 {
		return nil, nil, refusal.Invalid(fmt.Sprintf("“%s” was not taken: it holds no notes.", name))
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
		return refusal.Invalid(fmt.Sprintf("“%s” cannot be read: %s.", name, where))
	}
	return err
}
