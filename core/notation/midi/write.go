package midi

import (
	"math"
	"sort"

	"patientladder/core/base/rational"
	"patientladder/core/notation/score"
)

// usualDivision is the number of ticks of a quarter note where it suffices.
const usualDivision = 480

// Write writes a score as a MIDI file of type 1: a track of tempo, metre and
// key, then a track for each part. Repeats are not played out, grace notes are
// left out, as they have no time of their own. Times that no division below
// 32,768 holds go to the nearest tick.
func Write(s *score.Score) []byte {
	sounds := s.Sounding()
	division := int64(usualDivision)
	for _, n := range sounds {
		for _, t := range []rational.Rat{n.Onset, n.Duration} {
			if lcm, ok := rational.LCM(division, t.Den()); ok && lcm < 1<<15 {
				division = lcm
			}
		}
	}
	ticks := func(t rational.Rat) int64 {
		return int64(math.Round(float64(t.Num()) * float64(division) / float64(t.Den())))
	}
	out := append([]byte("MThd"), 0, 0, 0, 6, 0, 1, 0, byte(len(s.Parts)+1), byte(division>>8), byte(division))
	out = appendTrack(out, conductor(s, ticks))
	for part := range s.Parts {
		var t []timed
		t = append(t, timed{0, 0, meta(0x03, []byte(s.Parts[part].Name))})
		channel := byte(part % 15)
		if channel >= 9 {
			channel++ // the tenth is for percussion
		}
		for _, n := range sounds {
			if n.Part != part || n.Grace {
				continue
			}
			begin, end := ticks(n.Onset), ticks(n.Onset.Add(n.Duration))
			t = append(
				t,
				timed{begin, 2, []byte{0x90 | channel, byte(n.MIDI), 72}},
				timed{max(end, begin+1), 1, []byte{0x80 | channel, byte(n.MIDI), 0}},
			)
		}
		for _, x := range s.Signs {
			if x.Part == part && (x.Kind == score.PedalDown || x.Kind == score.PedalUp) {
				value := byte(0)
				if x.Kind == score.PedalDown {
					value = 127
				}
				t = append(t, timed{ticks(x.At), 1, []byte{0xB0 | channel, 64, value}})
			}
		}
		out = appendTrack(out, t)
	}
	return out
}

// timed is an event at a tick; at one tick lower ranks come first, so that a
// note ends before it begins again.
type timed struct {
	tick  int64
	rank  int
	bytes []byte
}

// conductor is the track of what holds for all parts.
func conductor(s *score.Score, ticks func(rational.Rat) int64) []timed {
	t := []timed{{0, 0, meta(0x03, []byte(s.Title))}}
	tempo := func(at rational.Rat, perMinute float64) {
		micro := int(math.Round(60e6 / perMinute))
		t = append(t, timed{ticks(at), 0, meta(0x51, []byte{byte(micro >> 16), byte(micro >> 8), byte(micro)})})
	}
	marked := false
	for _, x := range s.Signs {
		if x.Kind == score.TempoMark && x.Value >= 4 {
			tempo(x.At, x.Value)
			marked = true
		}
	}
	if !marked && s.Tempo >= 4 {
		tempo(rational.Rat{}, s.Tempo)
	}
	for i, b := range s.Bars {
		before := score.Bar{Fifths: 1 << 10}
		if i > 0 {
			before = s.Bars[i-1]
		}
		if beats, unit := written(b); beats > 0 {
			if was, wasUnit := written(before); i == 0 || beats != was || unit != wasUnit {
				t = append(t, timed{ticks(b.Start), 0, meta(0x58, []byte{byte(beats), byte(math.Log2(float64(unit))), 24, 8})})
			}
		}
		if b.Fifths != before.Fifths || b.Mode != before.Mode {
			minor := byte(0)
			if b.Mode == "minor" {
				minor = 1
			}
			t = append(t, timed{ticks(b.Start), 0, meta(0x59, []byte{byte(int8(max(-7, min(b.Fifths, 7)))), minor})})
		}
	}
	return t
}

// written is the time signature to write for a bar: a short bar has its own,
// as MIDI has no other way to end a bar early.
func written(b score.Bar) (beats, unit int) {
	length := b.Length
	for unit = max(b.BeatUnit, 4); unit <= 64; unit *= 2 {
		n := length.Mul(rational.New(int64(unit), 4))
		if n.Den() == 1 && n.Num() > 0 && n.Num() < 128 {
			if n.Num() == int64(b.Beats) && unit == max(b.BeatUnit, 4) {
				return b.Beats, b.BeatUnit
			}
			return int(n.Num()), unit
		}
	}
	return b.Beats, b.BeatUnit
}

func meta(kind byte, data []byte) []byte {
	if len(data) > 127 {
		data = data[:127]
	}
	return append([]byte{0xFF, kind, byte(len(data))}, data...)
}

func appendTrack(out []byte, events []timed) []byte {
	sort.SliceStable(events, func(a, b int) bool {
		if events[a].tick != events[b].tick {
			return events[a].tick < events[b].tick
		}
		return events[a].rank < events[b].rank
	})
	var body []byte
	last := int64(0)
	for _, e := range events {
		body = appendVariable(body, e.tick-last)
		body = append(body, e.bytes...)
		last = e.tick
	}
	body = append(body, 0, 0xFF, 0x2F, 0)
	out = append(out, 'M', 'T', 'r', 'k', byte(len(body)>>24), byte(len(body)>>16), byte(len(body)>>8), byte(len(body)))
	return append(out, body...)
}

func appendVariable(b []byte, n int64) []byte {
	for shift := 21; shift > 0; shift -= 7 {
		if n >= 1<<shift {
			b = append(b, byte(n>>shift)&0x7F|0x80)
		}
	}
	return append(b, byte(n)&0x7F)
}
