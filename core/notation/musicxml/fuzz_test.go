package musicxml

import (
	"errors"
	"fmt"
	"strings"
	"testing"
)

// FuzzRead: whatever the bytes, Read returns a score that holds together or
// one *Error; it never panics.
func FuzzRead(f *testing.F) {
	f.Add([]byte(part(fourFour + n("C4", 8))))
	f.Add([]byte(part(fourFour+n("C4", 4, `<tie type="start"/>`)+n("E4", 4, "<chord/>"), n("C4", 8, `<tie type="stop"/>`))))
	f.Add([]byte(part(`<measure number="0" implicit="yes">` + fourFour + n("G4", 2) + `</measure>`)))
	f.Add([]byte(`<!DOCTYPE x [<!ENTITY a "b">]><score-partwise>&a;</score-partwise>`))
	f.Add([]byte("\xFF\xFE<\x00"))
	f.Add(packed(f, "META-INF/container.xml", fmt.Sprintf(container, "a.xml"), "a.xml", part(fourFour+n("C4", 8))))
	f.Add(
		[]byte(
			`<score-timewise><part-list><score-part id="A"/></part-list><measure number="1"><part id="A">` + fourFour + n(
				"C4",
				8,
			) + `</part></measure></score-timewise>`,
		),
	)
	f.Fuzz(func(t *testing.T, data []byte) {
		limits := DefaultLimits()
		limits.Notes, limits.Bars, limits.Bytes = 2000, 500, 1<<16
		s, err := ReadWithin(data, limits)
		if err != nil {
			var e *Error
			if !errors.As(err, &e) {
				t.Fatalf("not an *Error: %v", err)
			}
			if strings.TrimSpace(e.What) == "" {
				t.Fatal("an error without a sentence")
			}
			return
		}
		for _, n := range s.Notes {
			if n.Bar < 1 || n.Bar > len(s.Bars) || n.Part < 0 || n.Part >= len(s.Parts) {
				t.Fatalf("a note outside the score: %+v", n)
			}
			if n.Onset.Num() < 0 || n.Duration.Num() < 0 || n.MIDI < 0 || n.MIDI > 127 {
				t.Fatalf("a note outside time or pitch: %+v", n)
			}
		}
		if order := s.Order(1000); len(order) > 1000 {
			t.Fatal("the order of bars runs on")
		}
		s.Unfolded(1000)
		sounds := s.Sounding()
		for i := 1; i < len(sounds); i++ {
			if sounds[i].Onset.Less(sounds[i-1].Onset) {
				t.Fatal("sounds are out of order")
			}
		}
	})
}
