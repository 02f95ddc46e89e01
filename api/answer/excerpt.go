package answer

import (
	"patientladder/api/contract"
	"patientladder/core/notation/engrave"
	"patientladder/core/notation/score"
)

// Excerpt is a drawing as the page takes it, under a key.
func Excerpt(key string, d engrave.Drawing) contract.Excerpt {
	out := contract.Excerpt{
		Key: key, Width: Thousandths(d.Width), Height: Thousandths(d.Height), Shapes: d.SVG(), Heads: []contract.ExcerptHead{}, Texts: []contract.ExcerptText{},
	}
	for _, h := range d.Heads {
		out.Heads = append(out.Heads, contract.ExcerptHead{At: h.At, X: Thousandths(h.X), Y: Thousandths(h.Y), Staff: h.Staff})
	}
	for _, x := range d.Texts {
		out.Texts = append(out.Texts, contract.ExcerptText{X: Thousandths(x.X), Y: Thousandths(x.Y), Size: Thousandths(x.Size), Text: x.Text})
	}
	return out
}

// Music is what a device needs to play a score, under a key, at a tempo in quarter notes a minute.
func Music(key string, s *score.Score, tempo float64) contract.FamilyMusic {
	out := contract.FamilyMusic{Key: key, Tempo: tempo, Sounds: []contract.SoundNote{}, Beats: []contract.MusicBeat{}}
	at := PlacesOf(s)
	for _, x := range s.Sounding() {
		if x.Duration.Num() > 0 {
			out.Sounds = append(out.Sounds, contract.SoundNote{At: x.Onset.Float(), Length: x.Duration.Float(), Midi: x.MIDI, Staff: at.Staff(x.Part, x.Staff), Bar: x.Bar})
		}
	}
	for _, b := range s.Bars {
		start, length, beat := b.Start.Float(), b.Length.Float(), b.Beat().Float()
		for t := 0.0; t < length-1e-6; t += beat {
			out.Beats = append(out.Beats, contract.MusicBeat{At: start + t, First: t == 0})
		}
	}
	return out
}
