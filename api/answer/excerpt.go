package answer

import (
	"patientladder/api/contract"
	"patientladder/core/notation/engrave"
	"patientladder/core/notation/score"
)

// Excerpt is a drawing as the page takes it, under a key.
func Excerpt(key string, d engrave.Drawing) contract.Excerpt {
	out := contract.Excerpt{
		Key: key, Width: Thousandths(d.Width), Height: Thousandths(d.Height), Shapes: d.SVG(), Heads: []contract.ExcerptHead{},
		Texts: []contract.ExcerptText{},
	}
	for _, h := range d.Heads {
		out.Heads = append(out.Heads, contract.ExcerptHead{At: h.At, X: Thousandths(h.X), Y: Thousandths(h.Y), Staff: h.Staff, Below: Thousandths(h.Below)})
	}
	for _, x := range d.Texts {
		out.Texts = append(out.Texts, contract.ExcerptText{X: Thousandths(x.X), Y: Thousandths(x.Y), Size: Thousandths(x.Size), Text: x.Text})
	}
	return out
}

// Music is what a device needs to play a score, under a key, at a tempo in quarter notes a minute.
func Music(key string, s *score.Score, tempo float64) contract.FamilyMusic {
	return contract.FamilyMusic{Key: key, Tempo: tempo, Sounds: Sounds(s), Beats: Beats(s)}
}

// Sounds are the notes that are heard.
func Sounds(s *score.Score) []contract.SoundNote {
	out := []contract.SoundNote{}
	at := PlacesOf(s)
	for _, x := range s.Heard() {
		out = append(
			out,
			contract.SoundNote{At: x.Onset.Float(), Length: x.Duration.Float(), Midi: x.MIDI, Staff: at.Staff(x.Part, x.Staff), Bar: x.Bar},
		)
	}
	return out
}

// Beats are those that a metronome gives with it.
func Beats(s *score.Score) []contract.MusicBeat {
	out := []contract.MusicBeat{}
	for _, x := range s.Counts() {
		out = append(out, contract.MusicBeat{At: x.At.Float(), First: x.First})
	}
	return out
}
