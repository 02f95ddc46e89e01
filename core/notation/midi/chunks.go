package midi

import (
	"fmt"

	"patientladder/core/notation/score"
)

// event is one MIDI event of a track.
type event struct {
	tick int64
	// status is the high nibble for channel events (0x80 to 0xE0), 0xFF for a meta event.
	status  byte
	channel byte
	// kind is the type of a meta event.
	kind byte
	data []byte
}

// header is the head of a file.
type header struct{ format, tracks, division int }

// fail writes an error with the byte at which it was found.
func fail(at int, format string, args ...any) error {
	return &score.FileError{What: fmt.Sprintf(format, args...), Where: fmt.Sprintf("byte %d", at)}
}

// chunks splits a file into its head and its tracks.
func chunks(data []byte) (h header, tracks [][]byte, offsets []int, skipped []string, err error) {
	if len(data) < 14 || string(data[:4]) != "MThd" {
		return h, nil, nil, nil, &score.FileError{What: "this is not a MIDI file: it does not begin with MThd"}
	}
	size := be(data[4:8])
	if size < 6 || size > len(data)-8 {
		return h, nil, nil, nil, fail(4, "the head of the file is damaged")
	}
	h = header{be(data[8:10]), be(data[10:12]), be(data[12:14])}
	switch {
	case h.format > 1:
		return h, nil, nil, nil, fail(8, "this is a MIDI file of type %d, a set of patterns; save the piece as type 0 or 1", h.format)
	case h.division >= 0x8000:
		return h, nil, nil, nil, fail(12, "the file counts time in frames of film, not in beats; save it with ticks per quarter note")
	case h.division == 0:
		return h, nil, nil, nil, fail(12, "the ticks of a quarter note must be above zero")
	}
	for at := 8 + size; at < len(data); {
		if len(data)-at < 8 {
			skipped = append(skipped, "bytes after the last track")
			break
		}
		name, n := string(data[at:at+4]), be(data[at+4:at+8])
		at += 8
		if n > len(data)-at {
			if name != "MTrk" {
				break
			}
			skipped = append(skipped, "the end of a track that was cut off")
			n = len(data) - at
		}
		if name == "MTrk" {
			tracks, offsets = append(tracks, data[at:at+n]), append(offsets, at)
		} else {
			skipped = append(skipped, "chunks of another kind")
		}
		at += n
	}
	return h, tracks, offsets, skipped, nil
}

// be reads a big-endian number of up to four bytes.
func be(b []byte) int {
	n := 0
	for _, c := range b {
		n = n<<8 | int(c)
	}
	return n
}

// events reads a track. A damaged rest of a track ends it: what was read
// before stands, and whole is false.
func events(track []byte, each func(event) error) (whole bool, err error) {
	var tick int64
	var running byte
	for at := 0; at < len(track); {
		delta, n := variable(track[at:])
		if n == 0 || at+n >= len(track) {
			return false, nil
		}
		at += n
		tick += int64(delta)
		e := event{tick: tick}
		status := track[at]
		if status < 0x80 { // running status
			if running == 0 {
				return false, nil
			}
			status = running
		} else {
			at++
		}
		switch {
		case status == 0xFF:
			if at >= len(track) {
				return false, nil
			}
			e.status, e.kind = 0xFF, track[at]
			at++
			size, n := variable(track[at:])
			if n == 0 || size > len(track)-at-n {
				return false, nil
			}
			e.data = track[at+n : at+n+size]
			at += n + size
			if e.kind == 0x2F {
				return true, each(e)
			}
		case status == 0xF0 || status == 0xF7:
			size, n := variable(track[at:])
			if n == 0 || size > len(track)-at-n {
				return false, nil
			}
			at += n + size
			e.status = 0xF0
		case status > 0xF0:
			return false, nil
		default:
			running = status
			e.status, e.channel = status&0xF0, status&0x0F
			size := 2
			if e.status == 0xC0 || e.status == 0xD0 {
				size = 1
			}
			if at+size > len(track) {
				return false, nil
			}
			e.data = track[at : at+size]
			at += size
		}
		if err := each(e); err != nil {
			return false, err
		}
	}
	return true, nil
}

// variable reads a number of variable length of at most four bytes; n is 0 when there is none.
func variable(b []byte) (value, n int) {
	for n < len(b) && n < 4 {
		value = value<<7 | int(b[n]&0x7F)
		n++
		if b[n-1] < 0x80 {
			return value, n
		}
	}
	return 0, 0
}
