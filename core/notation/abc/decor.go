package abc

import (
	"strings"

	"patientladder/core/notation/score"
)

// decoration reads !name! or, in the older form, +name+. A ! alone is the old
// sign for the end of a line.
func (t *tune) decoration(v *voice, c *scanner) {
	mark := c.s[c.i]
	c.i++
	rest := c.s[c.i:]
	end := strings.IndexByte(rest, mark)
	if end < 0 || strings.ContainsAny(rest[:end], " |[]") || end == 0 {
		return
	}
	c.i += end + 1
	name := rest[:end]
	switch name { // signs that stand between the notes
	case "p", "pp", "ppp", "pppp", "f", "ff", "fff", "ffff", "mp", "mf", "sfz", "fz", "sf", "sfp", "fp", "rf", "rfz":
		v.sign(score.Sign{Kind: score.Dynamic, Text: name})
	case "<(", "crescendo(":
		v.sign(score.Sign{Kind: score.Crescendo})
	case ">(", "diminuendo(":
		v.sign(score.Sign{Kind: score.Diminuendo})
	case "<)", ">)", "crescendo)", "diminuendo)":
		v.sign(score.Sign{Kind: score.HairpinEnd})
	case "ped":
		v.sign(score.Sign{Kind: score.PedalDown})
	case "ped-up":
		v.sign(score.Sign{Kind: score.PedalUp})
	case "D.C.", "D.S.", "dacapo", "dacoda", "D.C.alcoda", "D.C.alfine", "D.S.alcoda", "D.S.alfine", "segno", "coda", "fine":
		t.skip("jumps such as da capo (the piece is read once through)", c.number)
	case "breath", "shortphrase", "mediumphrase", "longphrase":
		if v.pending.last >= 0 {
			n := &v.notes[v.pending.last]
			n.Articulations = append(n.Articulations, "breath-mark")
		}
	case "beambr1", "beambr2", "editorial", "courtesy", "rbstop", "nil":
	default:
		v.pending.decorations = append(v.pending.decorations, name)
	}
}

// articulations and ornaments are the decorations that the model knows, by
// their MusicXML names.
var articulations = map[string]string{
	"staccato": "staccato", "accent": "accent", ">": "accent", "emphasis": "accent", "tenuto": "tenuto", "marcato": "strong-accent",
	"^":     "strong-accent",
	"wedge": "staccatissimo", "staccatissimo": "staccatissimo", "L": "accent",
}

var ornaments = map[string]string{
	"trill": "trill-mark", "turn": "turn", "roll": "turn", "uppermordent": "inverted-mordent", "lowermordent": "mordent", "mordent": "mordent",
	"pralltriller": "inverted-mordent", "invertedturn": "inverted-turn", "turnx": "turn", "trill(": "wavy-line", "tremolo": "tremolo",
	"/": "tremolo", "//": "tremolo", "///": "tremolo",
}

// decorate gives the waiting decorations to a note and lists those that it cannot hold.
func (t *tune) decorate(v *voice, n *score.Note, at int) {
	for _, d := range v.pending.decorations {
		switch {
		case len(d) == 1 && d[0] >= '0' && d[0] <= '5':
			n.Fingering = d
		case articulations[d] != "":
			n.Articulations = append(n.Articulations, articulations[d])
		case ornaments[d] != "":
			n.Ornaments = append(n.Ornaments, ornaments[d])
		case d == "fermata" || d == "invertedfermata":
			n.Fermata = true
		case d == "arpeggio":
			n.Rolled = true
		case d == "slide", d == "trill)":
			t.skip("decorations: "+d, at)
		case d == "coda" || d == "segno":
			t.skip("jumps such as da capo (the piece is read once through)", at)
		default:
			t.skip("decorations: "+score.Short(d), at)
		}
	}
	v.pending.decorations = nil
}

// quoted reads a text in quotation marks: a chord symbol, or an annotation
// when it begins with one of ^ _ < > @.
func (t *tune) quoted(v *voice, c *scanner) {
	text, ok := c.until('"')
	if !ok {
		t.skip("a text without its closing mark", c.number)
		c.i = len(c.s)
		return
	}
	text = unescape(text)
	switch {
	case text == "":
	case strings.IndexByte("^_<>@", text[0]) >= 0:
		if words := strings.TrimSpace(strings.TrimLeft(text[1:], "0123456789.,-")); words != "" {
			v.sign(score.Sign{Kind: score.Words, Text: score.Short(words)})
		}
	default:
		v.sign(score.Sign{Kind: score.Chord, Text: score.Short(text)})
	}
}
