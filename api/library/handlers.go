// Package library answers what is asked about books, pieces and scores.
//
//	library.go     books, their gradation, two books side by side
//	curriculum.go  books brought in and out
//	pieces.go      a piece, added and changed
//	piecefill.go   what the score of a piece says
//	scores.go      scores engraved, replaced, corrected and exported
//	read.go        an uploaded file
package library

import "patientladder/app/open"

// Handlers answer the calls about the library.
type Handlers struct{ *open.Loader }
