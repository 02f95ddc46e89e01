// Package musicxml reads MusicXML 4.0 files, partwise and timewise, plain and
// compressed, into the score model.
//
// The files are:
//
//	read.go     Read, its limits and the check of what kind of file it is
//	archive.go  compressed files (.mxl)
//	text.go     the encoding of the text
//	tokens.go   a pull reader of XML with depth and place
//	header.go   work, creators, part list
//	part.go     a part: bars, cursor, backup and forward
//	attributes.go  key, time, clef, transposition, tuning
//	note.go     a note
//	signs.go    dynamics, hairpins, pedal, words, tempi, chord symbols
//	bars.go     bar lengths over all parts, and voices that overrun
//	errors.go   the one-sentence errors
//
// Source: MusicXML 4.0, W3C Community Group Final Report, 2021.
package musicxml
