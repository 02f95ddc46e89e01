// Package abc reads and writes tunes in ABC notation 2.1.
//
// The files are:
//
//	read.go     Read, and how a file is cut into tunes
//	tune.go     a tune: its header, its lines, its fields
//	key.go      keys, modes and clefs
//	fields.go   metre, unit length, tempo, voices, %%score
//	music.go    a line of music, sign by sign
//	note.go     pitches, lengths, broken rhythm, tuplets, chords, grace notes
//	barline.go  bar lines, repeats and endings
//	decor.go    decorations and quoted text
//	lyrics.go   aligned words
//	join.go     the voices together as one score
//	write.go    Write
//
// Source: The ABC music standard 2.1, December 2011.
package abc
