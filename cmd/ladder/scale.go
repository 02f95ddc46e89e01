package main

import (
	"encoding/json"
	"io"

	"patientladder/core/notation/score"
	"patientladder/core/technique/scale"
)

// scaleJSON is a scale as it is written out (docs/formats.md).
type scaleJSON struct {
	Key     string `json:"key"`
	Kind    string `json:"kind"`
	Octaves int    `json:"octaves"`
	wayJSON
	// Down is there where the scale comes down otherwise than it went up.
	Down         *wayJSON          `json:"down,omitempty"`
	Meets        []meetJSON        `json:"meets"`
	Mirror       []meetJSON        `json:"mirror,omitempty"`
	Alternatives []alternativeJSON `json:"alternatives,omitempty"`
}

type wayJSON struct {
	Notes []string `json:"notes"`
	// MIDI are the pitches of the right hand; the left plays an octave lower.
	MIDI  []int `json:"midi"`
	Right []int `json:"rh"`
	Left  []int `json:"lh"`
}

type meetJSON struct {
	Degree int    `json:"degree"`
	Right  int    `json:"rh"`
	Left   int    `json:"lh"`
	Kind   string `json:"kind"`
}

type alternativeJSON struct {
	Hand    string `json:"hand"`
	Fingers []int  `json:"fingers"`
	Why     string `json:"why"`
}

func runScale(args []string, out io.Writer) error {
	f := flags(
		"scale",
		"Writes a scale or an arpeggio with the fingers of both hands as JSON, as in 'ladder scale Db major --octaves 2'. KIND is major, natural-minor, harmonic-minor, melodic-minor,\nchromatic, major- or minor-arpeggio, -broken-chord or -five-finger, or tetrachords.",
		out,
	).wants("KEY KIND", 2, 2)
	octaves := f.Int("octaves", 1, "how many, 1 to 4")
	if err := f.read(args); err != nil {
		return err
	}
	words := f.given
	kind := scale.Kind(words[1])
	tonic, err := scale.Parse(words[0], kind)
	if err != nil {
		return err
	}
	s, err := scale.Of(tonic, kind, *octaves)
	if err != nil {
		return err
	}
	j := scaleJSON{Key: tonic.String(), Kind: string(kind), Octaves: *octaves, wayJSON: wayOf(s.Up), Meets: []meetJSON{}}
	if kind == scale.MelodicMinor {
		down := wayOf(s.Down)
		j.Down = &down
	}
	for _, m := range s.Meets {
		j.Meets = append(j.Meets, meetJSON{m.Degree, m.Right, m.Left, m.Kind})
	}
	for _, m := range s.Mirror {
		j.Mirror = append(j.Mirror, meetJSON{m.Degree, m.Right, m.Left, m.Kind})
	}
	for _, a := range s.Alternatives {
		hand := "left"
		if a.Right {
			hand = "right"
		}
		j.Alternatives = append(j.Alternatives, alternativeJSON{hand, a.Fingers, a.Why})
	}
	return json.NewEncoder(out).Encode(j)
}

func wayOf(w scale.Way) wayJSON {
	return wayJSON{Notes: namesOf(w.Notes), MIDI: pitchesOf(w.Notes), Right: w.Right, Left: w.Left}
}

func namesOf(notes []score.Pitch) []string {
	var out []string
	for _, p := range notes {
		out = append(out, p.Name())
	}
	return out
}

func pitchesOf(notes []score.Pitch) []int {
	var out []int
	for _, p := range notes {
		out = append(out, p.Semitone())
	}
	return out
}
