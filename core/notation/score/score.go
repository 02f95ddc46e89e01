// Package score is the model of a written piece: what a reader of any file
// format fills in and what every analysis reads.
//
// Time is counted in quarter notes from the start of the piece, exactly.
// Notes are kept as written; Sounding joins ties and applies transposition.
package score

import (
	"fmt"
	"slices"
	"strconv"

	"patientladder/core/base/rational"
)

// Score is one piece as written.
type Score struct {
	Title    string
	Composer string
	// Tempo is the first written tempo in quarter notes a minute; 0 when none is written.
	Tempo float64
	Parts []Part
	Bars  []Bar
	// Notes holds every note and rest of every part in the order of the file.
	Notes []Note
	// Signs holds dynamics, hairpins, pedal, words, tempi, chord symbols and
	// changes of clef, in the order of the file.
	Signs []Sign
	// Skipped lists what the file holds that this model does not, so that
	// nothing is dropped in silence.
	Skipped []Skip
}

// Part is one player's part.
type Part struct {
	ID   string
	Name string
	// Staves is the number of staves, at least 1.
	Staves int
	// Clefs holds the first clef of each staff, indexed from staff 1 at 0.
	Clefs []Clef
	// Strings is the tuning of a tablature, lowest line first, as MIDI pitches; nil when not given.
	Strings []int
}

// Clef is a clef: a sign ("G", "F", "C", "TAB", "percussion"), the staff line
// it stands on (0 for the usual one) and the octaves by which it moves the music.
type Clef struct {
	Sign   string
	Line   int
	Octave int
}

// SignKind is the kind of a sign that stands beside the notes.
type SignKind string

// The kinds of signs.
const (
	// Dynamic has its letters as text: "mf".
	Dynamic SignKind = "dynamic"
	// Crescendo and Diminuendo begin a hairpin, HairpinEnd ends it.
	Crescendo  SignKind = "crescendo"
	Diminuendo SignKind = "diminuendo"
	HairpinEnd SignKind = "hairpin end"
	PedalDown  SignKind = "pedal down"
	PedalUp    SignKind = "pedal up"
	// Words are printed words: "dolce".
	Words SignKind = "words"
	// Rehearsal is a boxed mark above the staff: "A".
	Rehearsal SignKind = "rehearsal"
	// TempoMark has the quarter notes a minute as its value.
	TempoMark SignKind = "tempo"
	// Chord is a chord symbol: "Am7".
	Chord SignKind = "chord"
	// ClefChange has the new clef.
	ClefChange SignKind = "clef"
)

// Sign is something that stands beside the notes at a time.
type Sign struct {
	Kind  SignKind
	Text  string
	Value float64
	Clef  Clef
	At    rational.Rat
	// Bar counts from 1, Part from 0, Staff from 1.
	Bar, Part, Staff int
}

// Bar is one bar of the piece, the same for all parts.
type Bar struct {
	// Label is the printed number: "0" for a pickup, sometimes not a number.
	Label  string
	Start  rational.Rat
	Length rational.Rat
	// Beats and BeatUnit are the time signature in force: 6 and 8 for 6/8; 0 and 0 without one.
	Beats, BeatUnit int
	// Fifths is the key signature in force: sharps positive, flats negative.
	Fifths int
	// Mode is "major", "minor" or another name from the file; empty when not given.
	Mode string
	// Short says that the bar is shorter than its time signature: a pickup, or half of a split bar.
	Short bool
	// RepeatStart says that a repeated section begins here; RepeatEnd is how
	// often the section that ends here is played, 0 where none ends.
	RepeatStart bool
	RepeatEnd   int
	// Endings are the passes in which the bar is played; empty for all.
	Endings []int
}

// Pitch is a written pitch: step C to B, alteration in semitones, octave where middle C begins octave 4.
type Pitch struct {
	Step   byte
	Alter  int
	Octave int
}

// Note is one written note or rest.
type Note struct {
	Onset    rational.Rat
	Duration rational.Rat
	Pitch    Pitch
	// MIDI is the sounding pitch, 0 to 127, with middle C at 60; 0 for a rest.
	MIDI int
	// Part counts from 0, Staff from 1.
	Part, Staff int
	Voice       string
	// Bar is the position of the bar in the piece, from 1, whatever number is printed there.
	Bar  int
	Rest bool
	// Grace notes take no time of their own: duration 0 at the onset of the note they lean on.
	Grace bool
	// Chord says that the note sounds with the one before it.
	Chord             bool
	TieStart, TieStop bool
	// Tuplet is actual notes in the time of normal ones (3 in 2); zero outside tuplets.
	Tuplet    Ratio
	Type      string
	Dots      int
	Fingering string
	// String and Fret are for plucked instruments; String 0 means not given.
	String, Fret int
	// Bow is "down" or "up" where a bow is marked, Pluck a plucking finger ("p", "i", "m", "a").
	Bow, Pluck string
	// Join says that the left hand sounds the note out of the one before it on its string.
	Join          Join
	SlurStart     bool
	SlurStop      bool
	Articulations []string
	// Ornaments are "trill-mark", "mordent", "turn", "tremolo" and the like.
	Ornaments []string
	Fermata   bool
	// Rolled says that the chord is spread (arpeggio sign).
	Rolled          bool
	Lyric           string
	ShownAccidental bool
}

// Join is how the left hand sounds a note on a fretted string.
type Join string

// The ways to sound a note without plucking it: a finger falls on the string, pulls away from it, or slides along it.
const (
	Hammer Join = "hammer-on"
	Pull   Join = "pull-off"
	Slide  Join = "slide"
)

// Ratio is a pair such as 3:2.
type Ratio struct{ Actual, Normal int }

// Skip is something of the file that was not taken over.
type Skip struct {
	// What names it in words: "figured bass", "cue notes".
	What string `json:"what"`
	// Where is the first place: "part P1, bar 3".
	Where string `json:"where"`
	// Count is how often it occurs, at least 1.
	Count int `json:"count"`
	// Bars are the printed numbers of the bars where something was mended, in order, up to mostMended; nil for what was left out.
	Bars []string `json:"bars,omitempty"`
}

// mostMended is in how many bars a repair is named one by one.
const mostMended = 50

// Breath says that breath is taken after the note.
func (n Note) Breath() bool { return slices.Contains(n.Articulations, "breath-mark") }

// End returns the time at which the note stops as written.
func (n Note) End() rational.Rat { return n.Onset.Add(n.Duration) }

var stepSemitones = map[byte]int{'C': 0, 'D': 2, 'E': 4, 'F': 5, 'G': 7, 'A': 9, 'B': 11}

// Semitone returns the pitch on the MIDI scale, where middle C is 60.
func (p Pitch) Semitone() int { return 12*(p.Octave+1) + stepSemitones[p.Step] + p.Alter }

// BlackKey says that a pitch on the MIDI scale lies on a black key.
func BlackKey(midi int) bool {
	switch (midi%12 + 12) % 12 {
	case 1, 3, 6, 8, 10:
		return true
	}
	return false
}

// StaffStep returns the place on the staff, counted in steps, with middle C at 28.
func (p Pitch) StaffStep() int {
	return 7*p.Octave + (int(p.Step)-'C'+7)%7
}

// String writes "F#4", "Bb3", "C4".
func (p Pitch) String() string {
	return p.Name() + strconv.Itoa(p.Octave)
}

// Name writes the pitch without its octave: "F#", "Bb", "C".
func (p Pitch) Name() string {
	s := string(p.Step)
	for i := 0; i < p.Alter; i++ {
		s += "#"
	}
	for i := 0; i > p.Alter; i-- {
		s += "b"
	}
	return s
}

// ParsePitch reads "F#3" as String writes it; ok is false for anything else.
func ParsePitch(name string) (pitch Pitch, ok bool) {
	p := Pitch{}
	if name == "" || name[0] < 'A' || name[0] > 'G' {
		return p, false
	}
	p.Step = name[0]
	rest := name[1:]
	for rest != "" && (rest[0] == '#' || rest[0] == 'b') {
		if rest[0] == '#' {
			p.Alter++
		} else {
			p.Alter--
		}
		rest = rest[1:]
	}
	octave, err := strconv.Atoi(rest)
	p.Octave = octave
	return p, err == nil
}

// BarLabel returns the printed number of a bar position from 1, or the
// position itself where nothing is printed.
func (s *Score) BarLabel(bar int) string {
	if bar < 1 || bar > len(s.Bars) || s.Bars[bar-1].Label == "" {
		return strconv.Itoa(bar)
	}
	return s.Bars[bar-1].Label
}

// Labels returns the printed bar numbers, or nil when bar i is printed as i.
func (s *Score) Labels() []string {
	plain := true
	labels := make([]string, len(s.Bars))
	for i := range s.Bars {
		labels[i] = s.BarLabel(i + 1)
		plain = plain && labels[i] == strconv.Itoa(i+1)
	}
	if plain {
		return nil
	}
	return labels
}

// Length returns the length of the whole piece in quarter notes.
func (s *Score) Length() rational.Rat {
	if len(s.Bars) == 0 {
		return rational.Rat{}
	}
	last := s.Bars[len(s.Bars)-1]
	return last.Start.Add(last.Length)
}

// NotesByBar returns the indices of the notes of each bar, bar 1 at 0.
func (s *Score) NotesByBar() [][]int {
	count := make([]int, len(s.Bars))
	for i := range s.Notes {
		count[s.Notes[i].Bar-1]++
	}
	out := make([][]int, len(s.Bars))
	for b, n := range count {
		out[b] = make([]int, 0, n)
	}
	for i := range s.Notes {
		b := s.Notes[i].Bar - 1
		out[b] = append(out[b], i)
	}
	return out
}

// AddSkip records something that was not taken over; the same thing is counted, not listed again.
func (s *Score) AddSkip(what, where string) {
	for i := range s.Skipped {
		if s.Skipped[i].What == what {
			s.Skipped[i].Count++
			return
		}
	}
	s.Skipped = append(s.Skipped, Skip{What: what, Where: where, Count: 1})
}

// Mend records that something of the file was mended by a rule, with every bar where it was.
func (s *Score) Mend(what, where, bar string) {
	s.AddSkip(what, where)
	for i := range s.Skipped {
		x := &s.Skipped[i]
		if n := len(x.Bars); x.What == what && n < mostMended && (n == 0 || x.Bars[n-1] != bar) {
			x.Bars = append(x.Bars, bar)
		}
	}
}

// Place names a bar for a message: "part P1, bar 3".
func Place(part, bar string) string { return fmt.Sprintf("part %s, bar %s", part, bar) }
