package midi

import (
	"fmt"
	"math"
	"sort"
	"strconv"
	"unicode/utf8"

	"golang.org/x/text/encoding/charmap"

	"patientladder/core/base/rational"
	"patientladder/core/notation/score"
)

// longest is the latest end of a note in quarter notes: a day at a usual tempo.
const longest = 1 << 18

// Read reads a MIDI file: its notes at their exact times, a part for each
// track with notes (type 1) or each channel (type 0), bars by the time
// signatures. An error is always a *score.FileError. Written turns what was
// read into something that can be engraved.
func Read(data []byte) (*score.Score, error) { return ReadWithin(data, score.DefaultLimits()) }

// ReadWithin is Read with limits of the caller's own.
func ReadWithin(data []byte, limits score.Limits) (*score.Score, error) {
	if len(data) > limits.Bytes {
		return nil, &score.FileError{
			What: fmt.Sprintf(
				"the file has %.1f MB; a MIDI file may have %.1f MB at most",
				float64(len(data))/(1<<20),
				float64(limits.Bytes)/(1<<20),
			),
		}
	}
	h, tracks, offsets, skipped, err := chunks(data)
	if err != nil {
		return nil, err
	}
	r := &reader{score: &score.Score{}, limits: limits, division: int64(h.division), parts: map[[2]int]int{}}
	for _, what := range skipped {
		r.score.AddSkip(what, "the end of the file")
	}
	for i, track := range tracks {
		if err := r.track(i, track, offsets[i], h.format == 0); err != nil {
			return nil, err
		}
	}
	if len(r.score.Notes) == 0 {
		return nil, &score.FileError{What: "the file holds no notes"}
	}
	return r.score, r.bars()
}

type reader struct {
	score    *score.Score
	limits   score.Limits
	division int64
	parts    map[[2]int]int // track and channel → part
	meters   []meter
	keys     []keySign
	end      int64
}

type meter struct {
	tick            int64
	beats, beatUnit int
}

type keySign struct {
	tick   int64
	fifths int
	mode   string
}

// sounding is a note that was begun and not ended.
type sounding struct{ note int }

func (r *reader) track(number int, data []byte, offset int, byChannel bool) error {
	open := map[[2]byte][]sounding{}
	name := ""
	last := int64(0)
	where := "track " + strconv.Itoa(number+1)
	whole, err := events(data, func(e event) error {
		last = e.tick
		if e.tick/r.division > longest {
			return &score.FileError{What: fmt.Sprintf("the music lasts longer than %d quarter notes", longest), Where: where}
		}
		switch e.status {
		case 0xFF:
			r.meta(e, &name, where)
		case 0x90, 0x80:
			key := [2]byte{e.channel, e.data[0] & 0x7F}
			if e.status == 0x90 && e.data[1] > 0 {
				if e.channel == 9 {
					r.score.AddSkip("percussion (channel 10)", where)
					return nil
				}
				if len(r.score.Notes) >= r.limits.Notes {
					return &score.FileError{What: fmt.Sprintf("the file has more than %d notes", r.limits.Notes), Where: where}
				}
				part, err := r.part(number, int(e.channel), byChannel)
				if err != nil {
					return err
				}
				open[key] = append(open[key], sounding{len(r.score.Notes)})
				r.score.Notes = append(r.score.Notes, score.Note{
					Onset: rational.New(e.tick, r.division), MIDI: int(key[1]), Part: part, Staff: 1, Voice: "1",
				})
				return nil
			}
			if e.channel == 9 {
				return nil
			}
			if len(open[key]) == 0 {
				r.score.AddSkip("ends of notes that never began", where)
				return nil
			}
			r.stop(open[key][0], e.tick) // the note that sounds longest ends first
			open[key] = open[key][1:]
		case 0xB0:
			if e.data[0] == 64 {
				r.pedal(e, number, byChannel)
			}
		case 0xE0:
			r.score.AddSkip("bent pitches", where)
		case 0xF0:
			r.score.AddSkip("messages for one maker's instruments", where)
		}
		return nil
	})
	if err != nil {
		return err
	}
	if !whole {
		r.score.AddSkip("a damaged rest of a track", where)
	}
	for _, notes := range open {
		for _, n := range notes {
			r.score.AddSkip("notes without an end (ended with their track)", where)
			r.stop(n, last)
		}
	}
	for key, part := range r.parts {
		if key[0] == number && r.score.Parts[part].Name == "" {
			r.score.Parts[part].Name = name
		}
	}
	return nil
}

func (r *reader) stop(s sounding, tick int64) {
	n := &r.score.Notes[s.note]
	n.Duration = rational.New(tick, r.division).Sub(n.Onset)
	r.end = max(r.end, tick)
}

// part returns the part of a track or a channel.
func (r *reader) part(track, channel int, byChannel bool) (int, error) {
	key := [2]int{track, 0}
	if byChannel {
		key[1] = channel
	}
	if p, ok := r.parts[key]; ok {
		return p, nil
	}
	if len(r.score.Parts) >= r.limits.Parts {
		return 0, &score.FileError{What: fmt.Sprintf("the file has more than %d tracks with notes", r.limits.Parts)}
	}
	r.parts[key] = len(r.score.Parts)
	r.score.Parts = append(r.score.Parts, score.Part{ID: "P" + strconv.Itoa(len(r.score.Parts)+1), Staves: 1})
	return r.parts[key], nil
}

func (r *reader) pedal(e event, track int, byChannel bool) {
	part, ok := r.parts[[2]int{track, 0}]
	if byChannel {
		part, ok = r.parts[[2]int{track, int(e.channel)}]
	}
	if !ok || len(r.score.Signs) >= r.limits.Notes {
		return
	}
	kind := score.PedalUp
	if e.data[1] >= 64 {
		kind = score.PedalDown
	}
	for i := len(r.score.Signs) - 1; i >= 0; i-- { // half pedalling sends many values
		if s := r.score.Signs[i]; s.Part == part && (s.Kind == score.PedalDown || s.Kind == score.PedalUp) {
			if s.Kind == kind {
				return
			}
			break
		}
	}
	r.score.Signs = append(r.score.Signs, score.Sign{Kind: kind, At: rational.New(e.tick, r.division), Part: part, Staff: 1})
}

// meta reads the events that are about the music: names, tempo, metre, key.
func (r *reader) meta(e event, name *string, where string) {
	switch {
	case e.kind == 0x03:
		if *name == "" {
			*name = text(e.data)
		}
		if r.score.Title == "" && len(r.score.Notes) == 0 {
			r.score.Title = text(e.data)
		}
	case e.kind == 0x51 && len(e.data) == 3:
		tempo := 60e6 / math.Max(float64(be(e.data)), 1)
		if tempo < 1 || tempo > 1000 {
			r.score.AddSkip("a tempo beyond all music", where)
			return
		}
		tempo = math.Round(tempo*100) / 100
		if r.score.Tempo == 0 {
			r.score.Tempo = tempo
		}
		if len(r.score.Signs) < r.limits.Notes {
			r.score.Signs = append(r.score.Signs, score.Sign{Kind: score.TempoMark, Value: tempo, At: rational.New(e.tick, r.division), Staff: 1})
		}
	case e.kind == 0x58 && len(e.data) >= 2:
		if e.data[0] == 0 || e.data[0] > 128 || e.data[1] > 7 {
			r.score.AddSkip("a time signature that cannot be", where)
			return
		}
		r.meters = append(r.meters, meter{e.tick, int(e.data[0]), 1 << e.data[1]})
	case e.kind == 0x59 && len(e.data) == 2:
		fifths, mode := int(int8(e.data[0])), "major"
		if e.data[1] == 1 {
			mode = "minor"
		}
		if fifths < -7 || fifths > 7 {
			r.score.AddSkip("a key signature that cannot be", where)
			return
		}
		r.keys = append(r.keys, keySign{e.tick, fifths, mode})
	}
}

// text reads a name, which may be in an old encoding.
func text(b []byte) string {
	if !utf8.Valid(b) {
		b, _ = charmap.ISO8859_1.NewDecoder().Bytes(b)
	}
	return score.Short(string(b))
}

// bars lays the bars by the time signatures; 4/4 until there is one. A time
// signature in the middle of a bar ends it there.
func (r *reader) bars() error {
	sort.SliceStable(r.meters, func(a, b int) bool { return r.meters[a].tick < r.meters[b].tick })
	sort.SliceStable(r.keys, func(a, b int) bool { return r.keys[a].tick < r.keys[b].tick })
	now := meter{beats: 4, beatUnit: 4}
	key := keySign{}
	m, k := 0, 0
	for tick := int64(0); tick < r.end || len(r.score.Bars) == 0; {
		for ; m < len(r.meters) && r.meters[m].tick <= tick; m++ {
			now = r.meters[m]
		}
		for ; k < len(r.keys) && r.keys[k].tick <= tick; k++ {
			key = r.keys[k]
		}
		nominal := r.division * 4 * int64(now.beats) / int64(now.beatUnit)
		if nominal == 0 {
			return &score.FileError{What: "the ticks of the file are too few for its time signature"}
		}
		length := nominal
		if m < len(r.meters) && r.meters[m].tick < tick+nominal {
			length = r.meters[m].tick - tick
		}
		if len(r.score.Bars) >= r.limits.Bars {
			return &score.FileError{What: fmt.Sprintf("the file has more than %d bars", r.limits.Bars)}
		}
		r.score.Bars = append(r.score.Bars, score.Bar{
			Label: strconv.Itoa(len(r.score.Bars) + 1), Start: rational.New(tick, r.division), Length: rational.New(length, r.division),
			Beats: now.beats, BeatUnit: now.beatUnit, Fifths: key.fifths, Mode: key.mode, Short: length < nominal,
		})
		tick += length
	}
	bars := r.score.Bars
	at := func(t rational.Rat) int {
		return max(1, sort.Search(len(bars), func(i int) bool { return t.Less(bars[i].Start) }))
	}
	for i := range r.score.Notes {
		n := &r.score.Notes[i]
		n.Bar = at(n.Onset)
		n.Pitch = Spell(n.MIDI, bars[n.Bar-1].Fifths)
	}
	for i := range r.score.Signs {
		r.score.Signs[i].Bar = at(r.score.Signs[i].At)
	}
	return nil
}
