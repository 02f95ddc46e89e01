// Package midi reads and writes Standard MIDI files of types 0 and 1.
//
//	chunks.go   header, tracks, variable lengths: the bytes
//	read.go     Read: the events of a file as notes in exact time
//	written.go  Written: what was played, as it would be written down
//	spell.go    note names for pitches
//	voices.go   notes that overlap, in voices
//	write.go    Write
//
// Source: Standard MIDI Files 1.0, MIDI Manufacturers Association, 1996 (from
// memory; checked against midicsv).
package midi
