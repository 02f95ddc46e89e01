package abc

import (
	"fmt"
	"strings"

	"patientladder/core/base/rational"
	"patientladder/core/notation/score"
)

// tune is one tune being read.
type tune struct {
	*file
	score  *score.Score
	number string
	// base holds what the header says for every voice.
	base   voice
	voices map[string]*voice
	order  []*voice
	cur    *voice
	inBody bool
	// staves is what %%score says: parts of staves of voices.
	staves [][][]string
	// symbols are the letters that stand for decorations.
	symbols map[byte]string
	// spread is how far an accidental reaches in its bar: "not", "octave" or "pitch".
	spread string
	last   byte // the last field, for "+:"
	// lcm of the denominators of all lengths keeps exact time within 64 bits.
	lcm int64
}

// voice is one voice: where it is in time and what is in force.
type voice struct {
	id, name          string
	clef, firstClef   score.Clef
	octave, transpose int
	key               key
	beats, beatUnit   int
	unit              rational.Rat
	unitGiven         bool

	notes []score.Note
	signs []score.Sign
	bars  []bar
	open  bar
	// now is the time from the start of the tune; overlay names a voice laid over the bar.
	now, furthest rational.Rat
	overlay       int
	// accidentals in force in the bar, by step and octave, or by step alone.
	accidentals map[[2]int]int
	lineStart   int
	verses      int

	pending pending
}

// bar is one bar of one voice.
type bar struct {
	start, end      rational.Rat
	beats, beatUnit int
	key             key
	repeatStart     bool
	repeatEnd       int
	endings         []int
	line            int
}

func (t *tune) where(at int) string {
	if t.number != "" {
		return fmt.Sprintf("tune %s, line %d", t.number, at)
	}
	return fmt.Sprintf("line %d", at)
}

func (t *tune) skip(what string, at int) {
	if len(t.score.Skipped) < 200 {
		t.score.AddSkip(what, t.where(at))
	}
}

func (t *tune) fail(at int, format string, args ...any) error {
	where := ""
	if t.number != "" {
		where = "tune " + t.number
	}
	return &score.FileError{What: fmt.Sprintf(format, args...), Where: where, Line: at}
}

// defaultSymbols are the decorations by one letter.
func defaultSymbols() map[byte]string {
	return map[byte]string{
		'~': "roll",
		'H': "fermata",
		'L': "accent",
		'M': "lowermordent",
		'O': "coda",
		'P': "uppermordent",
		'S': "segno",
		'T': "trill",
		'u': "upbow",
		'v': "downbow",
	}
}

func (f *file) tune(lines []line) (*score.Score, error) {
	t := &tune{file: f, score: &score.Score{}, voices: map[string]*voice{}, symbols: defaultSymbols(), spread: "pitch", lcm: 1}
	t.base = voice{key: signature(0, ""), unit: rational.New(1, 2)}
	t.cur = &t.base
	for _, l := range f.head {
		if err := t.readLine(l); err != nil {
			return nil, err
		}
	}
	for _, l := range lines {
		if !t.inBody && field(l.text) == 0 && !strings.HasPrefix(l.text, "%") && strings.TrimSpace(l.text) != "" {
			t.begin() // music without a K: field
		}
		if err := t.readLine(l); err != nil {
			return nil, err
		}
	}
	t.begin()
	return t.score, t.join()
}

// begin ends the header: what it said holds for the first voice.
func (t *tune) begin() {
	if t.inBody {
		return
	}
	t.inBody = true
	if len(t.order) > 0 { // voices that the header named
		t.cur = t.order[0]
		return
	}
	t.cur = t.newVoice("")
}

// newVoice makes a voice with what the header says; nil when there are too many.
func (t *tune) newVoice(id string) *voice {
	if len(t.order) >= t.limits.Parts {
		t.skip("voices beyond the limit", 0)
		return nil
	}
	v := t.base
	v.id, v.notes, v.signs, v.accidentals = id, nil, nil, map[[2]int]int{}
	v.pending = pending{last: -1}
	v.open = bar{key: v.key, beats: v.beats, beatUnit: v.beatUnit}
	if len(t.order) == 0 {
		v.signs = t.base.signs
	}
	t.voices[id] = &v
	t.order = append(t.order, &v)
	return &v
}

func (t *tune) readLine(l line) error {
	text := l.text
	if strings.HasPrefix(text, "%%") {
		t.directive(strings.TrimSpace(text[2:]), l.number)
		return nil
	}
	text = uncomment(text)
	if strings.TrimSpace(text) == "" {
		return nil
	}
	if f := field(text); f != 0 {
		return t.field(f, strings.TrimSpace(text[2:]), l.number)
	}
	if !t.inBody {
		return nil
	}
	t.cur.lineStart, t.cur.verses = len(t.cur.notes), 0
	return t.music(text, l.number)
}

// uncomment drops what follows a % that is not written \%.
func uncomment(s string) string {
	for i := 0; i < len(s); i++ {
		if s[i] == '%' && (i == 0 || s[i-1] != '\\') {
			return s[:i]
		}
	}
	return s
}

func (t *tune) field(f byte, value string, at int) error {
	v := t.cur
	if !t.inBody && f != 'V' {
		v = &t.base
	}
	if f != '+' {
		t.last = f
	}
	switch f {
	case 'X':
		t.number = score.Short(value)
	case 'T':
		if t.score.Title == "" {
			t.score.Title = unescape(value)
		}
	case 'C':
		if t.score.Composer == "" {
			t.score.Composer = unescape(value)
		}
	case 'M':
		t.setMeter(v, value, at)
		v.newBarSign()
	case 'L':
		t.setUnit(v, value, at)
	case 'Q':
		t.setTempo(v, value, at)
	case 'K':
		t.setKey(v, value, at)
		v.newBarSign()
		if !t.inBody {
			for _, named := range t.order { // voices named before the key
				named.inherit(&t.base)
			}
			t.begin()
		}
	case 'V':
		t.toVoice(value, at)
	case 'w':
		return t.lyrics(value, at)
	case 'U':
		t.setSymbol(value)
	case 'I':
		t.directive(value, at)
	case 'P':
		if !t.inBody {
			t.skip("the order of the parts (P:); they are read as printed", at)
		}
	case 'W':
		t.skip("words below the tune (W:)", at)
	case 's':
		t.skip("symbol lines (s:)", at)
	case 'm':
		t.skip("macros (m:)", at)
	case '+':
		if t.last == 'w' {
			t.skip("continued lines of words (+:)", at)
		}
	case 'A', 'B', 'D', 'F', 'G', 'H', 'N', 'O', 'R', 'r', 'S', 'Z':
		// facts about where the tune comes from; they are not music
	default:
		t.skip(fmt.Sprintf("unknown field %c:", f), at)
	}
	return nil
}

// inherit takes key, metre and unit from the header.
func (v *voice) inherit(base *voice) {
	v.key, v.beats, v.beatUnit = base.key, base.beats, base.beatUnit
	v.unit, v.unitGiven = base.unit, base.unitGiven
	if v.firstClef.Sign == "" {
		v.clef, v.firstClef = base.clef, base.firstClef
	}
	if v.octave == 0 {
		v.octave = base.octave
	}
	if v.transpose == 0 {
		v.transpose = base.transpose
	}
	v.newBarSign()
}

// directive reads %%name value or I:name value.
func (t *tune) directive(text string, at int) {
	name, value, _ := strings.Cut(text, " ")
	switch name {
	case "score", "staves":
		t.setStaves(value)
	case "propagate-accidentals":
		t.spread = strings.TrimSpace(value)
	case "abc-charset", "abc-version", "abc-include", "abc-creator", "":
	default:
		t.skip("directives %%"+score.Short(name), at)
	}
}

// setSymbol reads "T = !trill!".
func (t *tune) setSymbol(value string) {
	name, deco, found := strings.Cut(value, "=")
	name = strings.TrimSpace(name)
	if found && len(name) == 1 {
		t.symbols[name[0]] = strings.Trim(strings.TrimSpace(deco), "!+")
	}
}

// unescape puts plain characters in the place of the usual escapes in texts.
func unescape(s string) string {
	s = strings.NewReplacer(`\%`, "%", `\&`, "&", "&amp;", "&", "&quot;", `"`).Replace(s)
	return strings.TrimSpace(s)
}

func (v *voice) sign(s score.Sign) {
	s.At = v.now
	v.signs = append(v.signs, s)
}

// newBarSign lets a key or metre that changes at the start of a bar hold for it.
func (v *voice) newBarSign() {
	if v.now.Cmp(v.open.start) == 0 {
		v.open.key, v.open.beats, v.open.beatUnit = v.key, v.beats, v.beatUnit
	}
}
