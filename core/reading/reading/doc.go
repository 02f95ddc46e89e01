// Package reading reads a score the way a teacher does before the first note
// is played: where each hand starts (hand, finger, key), where the notes stay,
// rise or fall, whether they move by step, skip or leap, and which notes are
// used. Every finding carries its bars.
//
//	lines.go     which notes belong to which hand, onset by onset
//	moves.go     direction and interval between successive onsets
//	start.go     the start of each hand
//	guide.go     notes found from the nearest guide note
//	interval.go  the number and quality of an interval from its spelling
package reading
