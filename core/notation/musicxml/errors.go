package musicxml

import "patientladder/core/notation/score"

// Error says in one sentence what is wrong with a file and where.
type Error = score.FileError

// Limits bound what a file may ask of the reader.
type Limits = score.Limits

// DefaultLimits are the limits Read uses.
func DefaultLimits() Limits { return score.DefaultLimits() }

func short(s string) string { return score.Short(s) }
