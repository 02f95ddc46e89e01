package exercise

import (
	"fmt"
	"slices"
	"testing"

	"github.com/stretchr/testify/require"

	"patientladder/core/base/rational"
	"patientladder/core/library/instrument"
	"patientladder/core/notation/musicxml"
	"patientladder/core/notation/score"
	"patientladder/core/reading/naming"
	"patientladder/core/technique/scale"
)

func built(t *testing.T, player, id string) (Exercise, Built) {
	x, _ := instrument.Of(player)
	e, err := Parse(id, x)
	require.NoError(t, err)
	b, err := e.Build()
	require.NoError(t, err)
	return e, b
}

func texts(b Built) (out []string) {
	for _, d := range b.Dynamics {
		out = append(out, d.Hand+" "+d.Text)
	}
	return out
}

// The path to one hand that sings (common practice): the loud hand alone; the other mimes on the key
// tops; thumbs, one loud and one soft; five fingers; then the roles swapped.
func TestThePathToOneHandThatSings(t *testing.T) {
	of := func(step string) Built {
		_, b := built(t, "piano", "voicing/"+step+"/C/major-five-finger/-")
		return b
	}
	heard := func(b Built, hand string) (out []score.Pitch) {
		for _, n := range b.Notes {
			if n.Hand == hand && !n.Silent {
				out = append(out, n.Pitch)
			}
		}
		return out
	}
	alone := of("alone")
	require.Empty(t, heard(alone, "left"))
	require.Equal(t, []string{" f"}, texts(alone))
	mime := of("mime")
	require.NotEmpty(t, heard(mime, "right"))
	require.Empty(t, heard(mime, "left"), "it moves and is not heard")
	require.True(t, slices.ContainsFunc(mime.Notes, func(n Note) bool { return n.Hand == "left" && n.Silent }))
	thumbs := of("thumbs")
	for _, n := range thumbs.Notes {
		require.Equal(t, 1, n.Finger)
	}
	require.Equal(t, []string{"right f", "left pp"}, texts(thumbs))
	require.Equal(t, []string{"right f", "left pp"}, texts(of("five")))
	require.Equal(t, []string{"right pp", "left f"}, texts(of("swapped")))
}

// Two touches at once: the left hand short, the right hand joined.
func TestTwoTouchesAtOnce(t *testing.T) {
	_, b := built(t, "piano", "five-finger/touch/D/major-five-finger/-")
	for _, n := range b.Notes {
		require.Equal(t, n.Hand == "left", n.Short)
	}
}

// A scale that grows and fades has its loudest place at the top note.
func TestASwellIsLoudestAtTheTop(t *testing.T) {
	_, b := built(t, "piano", "scale/dynamics/G/major/-")
	require.Equal(t, []string{" crescendo", " end", " diminuendo", " end"}, texts(b))
	top, at := 0, rational.Rat{}
	for _, n := range b.Notes {
		if n.Hand == "right" && n.Pitch.Semitone() > top {
			top, at = n.Pitch.Semitone(), n.At
		}
	}
	turn := b.Dynamics[2].At
	require.LessOrEqual(t, turn.Sub(at).Float(), 1.0, "within a beat of the top")
	require.GreaterOrEqual(t, turn.Sub(at).Float(), -1.0)
}

// In the round the voices never clash: on every strong beat on which both sound they make a consonance
// (unison, third, fourth, fifth, sixth, octave: the rules of counterpoint, the fourth between upper
// voices let pass). The left hand begins a bar later with the same tune.
func TestTheRoundGoesWithItself(t *testing.T) {
	for _, kind := range []scale.Kind{scale.MajorFive, scale.MinorFive} {
		_, b := built(t, "piano", "two-voices/round/C/"+string(kind)+"/-")
		sounding := func(hand string, at rational.Rat) (score.Pitch, bool) {
			for _, n := range b.Notes {
				if n.Hand == hand && !at.Less(n.At) && at.Less(n.End()) {
					return n.Pitch, true
				}
			}
			return score.Pitch{}, false
		}
		compared := 0
		for beat := int64(0); rational.Int(beat).Less(b.Length); beat += 2 {
			r, both := sounding("right", rational.Int(beat))
			l, too := sounding("left", rational.Int(beat))
			if both && too {
				steps := (r.StaffStep() - l.StaffStep()) % 7
				require.NotContains(t, []int{1, 6, -1, -6}, steps, "a second or a seventh at beat %d: %s over %s", beat, r, l)
				compared++
			}
		}
		require.GreaterOrEqual(t, compared, 10)
		line := func(hand string, later int64) (out []string) {
			for _, n := range b.Notes {
				if n.Hand == hand {
					out = append(out, n.At.Sub(rational.Int(later)).String()+" "+n.Pitch.Name())
				}
			}
			return out
		}
		right, left := line("right", 0), line("left", 4)
		require.Equal(t, right[:len(left)-1], left[:len(left)-1])
	}
}

// Quick fingers for the left hand are the mirror of those for the right: the same fingers at the same time.
func TestStudiesComeInMirroredPairs(t *testing.T) {
	fingers := func(step, hand string) (out []int) {
		_, b := built(t, "piano", "mirrored/"+step+"/C/major-five-finger/-")
		for _, n := range b.Notes {
			if n.Hand == hand {
				out = append(out, n.Finger)
			}
		}
		return out
	}
	require.Equal(t, fingers("right", "right"), fingers("left", "left"))
	require.Equal(t, fingers("both", "right"), fingers("both", "left"))
	require.Equal(t, []int{5, 4, 3, 2, 1, 2, 3, 4}, fingers("right", "right")[:8])
}

// Whole bows take a note each, down and up in turn; slurred ones two or four (common practice).
func TestBowsAreDealtOut(t *testing.T) {
	bows := func(id string) (out []string) {
		_, b := built(t, "cello", id)
		for _, n := range b.Notes {
			switch {
			case n.Bow != "":
				out = append(out, n.Bow)
			default:
				out = append(out, "-")
			}
		}
		return out
	}
	require.Equal(t, []string{"down", "up", "down", "up"}, bows("string-scale/one/D/major/-")[:4])
	require.Equal(t, []string{"down", "-", "up", "-"}, bows("string-scale/slurred/D/major/-")[:4])
	require.Equal(t, []string{"down", "-", "-", "-", "up"}, bows("string-scale/four/D/major/-")[:5])
	_, b := built(t, "cello", "finger-pattern/air/D/major/2")
	for _, n := range b.Notes {
		require.True(t, n.Silent, "walked in the air first")
	}
}

// A chord held under a roll keeps its strings; through a change the second shape comes after two bars.
func TestRollsOverChords(t *testing.T) {
	_, b := built(t, "ukulele", "roll/changes/-/-/thumb-out")
	require.Equal(t, "C", b.Chords[0].Name)
	require.Equal(t, "F", b.Chords[1].Name)
	require.EqualValues(t, 2*b.Beats, b.Chords[1].At.Num())
	_, open := built(t, "ukulele", "roll/open/-/-/thumb-out")
	require.Empty(t, open.Chords)
	for i, n := range open.Notes {
		require.Zero(t, n.Above)
		require.Equal(t, b.Notes[i].Pluck, n.Pluck, "the fingers stay whatever the left hand does")
		require.Equal(t, b.Notes[i].String, n.String)
	}
}

func joinsOf(b Built) (out []string) {
	for _, n := range b.Notes {
		how := n.Pluck
		if n.Join != "" {
			how = string(n.Join)
		}
		out = append(out, fmt.Sprintf("%d:%d %s", n.String, n.Above, how))
	}
	return out
}

// A hammer-on plucks the lower fret and the finger that falls sounds the higher one; a pull-off goes the other way; a slide
// keeps its finger (common practice).
func TestTheLeftHandSoundsNotes(t *testing.T) {
	_, hammer := built(t, "guitar", "joins/hammer/-/-/2")
	require.Equal(t, []string{"2:0 m", "2:2 hammer-on"}, joinsOf(hammer)[:2])
	_, pull := built(t, "guitar", "joins/pull/-/-/2")
	require.Equal(t, []string{"2:2 m", "2:0 pull-off"}, joinsOf(pull)[:2])
	_, both := built(t, "banjo", "joins/both/-/-/1")
	require.Equal(t, []string{"1:0 m", "1:2 hammer-on", "1:0 pull-off", "1:0 m"}, joinsOf(both)[:4])
	_, slide := built(t, "ukulele", "joins/slide/-/-/1")
	require.Equal(t, []string{"1:2 m", "1:4 slide"}, joinsOf(slide)[:2])
	for i := 1; i < len(slide.Notes); i += 2 {
		require.Equal(t, slide.Notes[i-1].Finger, slide.Notes[i].Finger)
	}
	for _, b := range []Built{hammer, pull, both, slide} {
		require.Equal(t, "16", b.Length.String())
	}
}

// Inside a roll the added note shares the time of the stroke that it comes from, so that the roll keeps its speed; the string
// that is never stopped has none.
func TestANoteOfTheLeftHandInsideARoll(t *testing.T) {
	_, plain := built(t, "banjo", "roll/open/-/-/rocking-thumb")
	_, pull := built(t, "banjo", "roll/pull-inside/-/-/rocking-thumb")
	require.Equal(t, []string{"3:2 p", "3:0 pull-off", "2:0 i", "5:0 p", "1:0 m", "4:0 p", "2:0 i", "5:0 p", "1:0 m"}, joinsOf(pull)[:9])
	require.Equal(t, plain.Length, pull.Length)
	require.Equal(t, "1/4", pull.Notes[1].Length.String())
	require.Equal(t, plain.Notes[1].At, pull.Notes[2].At)
	for _, n := range pull.Notes {
		require.False(t, n.String == 5 && n.Above > 0)
	}
}

// The same notes stand on the staff and in the tablature: an open string and its fret sound what is written (all fretted
// exercises), also after they were written as MusicXML and read again.
func TestTablatureAndStaffNameTheSameNotes(t *testing.T) {
	count := 0
	for _, x := range instrument.All() {
		if !x.Fretted() {
			continue
		}
		for _, kind := range For(x) {
			for _, step := range kind.Steps {
				for _, e := range Places(Exercise{Type: kind, Step: step, Instrument: x}) {
					s, err := e.Score(naming.Words{})
					require.NoError(t, err)
					again, err := musicxml.Read(musicxml.Write(s, musicxml.Options{}))
					require.NoError(t, err, e.ID())
					require.Len(t, again.Notes, len(s.Notes))
					for i, n := range again.Notes {
						if n.Rest {
							continue
						}
						count++
						require.Equal(t, x.Open[n.String-1].Semitone()+n.Fret, n.Pitch.Semitone()+12*x.Octave, "%s, note %d", e.ID(), i+1)
						require.Equal(t, s.Notes[i].Join, n.Join, "%s, note %d", e.ID(), i+1)
						require.Equal(t, [2]int{s.Notes[i].String, s.Notes[i].Fret}, [2]int{n.String, n.Fret})
					}
				}
			}
		}
	}
	t.Logf("%d notes on strings and staves agree", count)
}

// The groups of three and four fingers of a scale (handbook practice): in C the right hand goes three and four, the left,
// from its fifth finger down to the thumb, five as the end of a group of four, then three; the note that ends without a
// turn goes with its neighbours.
func TestTheGroupsOfThreeAndFour(t *testing.T) {
	_, b := built(t, "piano", "scale/apart/C/major/-")
	groups := map[string][]int{}
	var begins []string
	for i, n := range b.Notes {
		groups[n.Hand] = append(groups[n.Hand], n.Group)
		if n.Begins && i < 15 {
			begins = append(begins, n.Pitch.String())
		}
	}
	require.Equal(t, []int{3, 3, 3, 4, 4, 4, 4, 4, 4, 4, 4, 4, 3, 3, 3}, groups["right"])
	require.Equal(t, []int{4, 4, 4, 4, 4, 3, 3, 3, 3, 3, 4, 4, 4, 4, 4}, groups["left"])
	require.Equal(t, []string{"C4", "F4", "E4"}, begins)
	e, _ := built(t, "piano", "scale/apart/C/major/-")
	s, err := e.Score(naming.Words{})
	require.NoError(t, err)
	var words []string
	for _, n := range s.Notes {
		if n.Staff == 1 && n.Lyric != "" {
			words = append(words, n.Pitch.String()+" "+n.Lyric)
		}
	}
	require.Equal(t, []string{"C4 three", "F4 four", "E4 three"}, words)
}

// Six levels of loudness by weight, one after the other and audibly apart; with the line it grows as it rises (common practice).
func TestLoudnessByWeight(t *testing.T) {
	_, six := built(t, "piano", "arm-weight/six/C/major-five-finger/-")
	require.Equal(t, []string{" pp", " p", " mp", " mf", " f", " ff"}, texts(six))
	var loud []float64
	for i, n := range six.Notes {
		if n.Hand == "right" && i%8 == 0 && i < 48 {
			loud = append(loud, six.Loud(n))
		}
	}
	require.InDeltaSlice(t, []float64{0.2, 0.36, 0.52, 0.68, 0.84, 1}, loud, 1e-9)
	_, line := built(t, "piano", "arm-weight/line/C/major-five-finger/-")
	require.Equal(
		t,
		[]string{
			" crescendo",
			" end",
			" diminuendo",
			" end",
			" crescendo",
			" end",
			" diminuendo",
			" end",
			" crescendo",
			" end",
			" diminuendo",
			" end",
		},
		texts(line),
	)
	loud = nil
	for _, n := range line.Notes[:9] {
		loud = append(loud, line.Loud(n))
	}
	require.InDeltaSlice(t, []float64{0.36, 0.48, 0.6, 0.72, 0.84, 0.72, 0.6, 0.48, 0.36}, loud, 1e-9)
	_, five := built(t, "piano", "voicing/five/C/major-five-finger/-")
	right, left := five.Notes[0], five.Notes[len(five.Notes)-1]
	require.InDelta(t, 0.84, five.Loud(right), 1e-9)
	require.InDelta(t, 0.2, five.Loud(left), 1e-9)
}

// A small family of two voices (counterpoint as taught to beginners, common practice): the canon is the same tune a bar
// later an octave lower; question and answer are never at once; one voice holds while the other moves; the mirror turns
// every interval round. No two voices end apart.
func TestTwoVoices(t *testing.T) {
	voices := func(step string) (right, left []Note, b Built) {
		_, b = built(t, "piano", "two-voices/"+step+"/C/major-five-finger/-")
		for _, n := range b.Notes {
			if n.Hand == "right" {
				right = append(right, n)
			} else {
				left = append(left, n)
			}
		}
		return right, left, b
	}
	right, left, _ := voices("round")
	for i, n := range left {
		require.Equal(t, right[i].Pitch.Semitone()-12, n.Pitch.Semitone())
		require.Equal(t, right[i].At.Add(rational.Int(4)), n.At)
	}
	right, left, _ = voices("answer")
	for _, r := range right {
		for _, l := range left {
			require.False(t, r.At.Less(l.End()) && l.At.Less(r.End()), "both at once at %s", r.At)
		}
	}
	right, left, _ = voices("held")
	require.Equal(t, "4", right[0].Length.String())
	require.Equal(t, "1", left[0].Length.String())
	right, left, _ = voices("inverted")
	for i := 1; i < 10; i++ {
		up := right[i].Pitch.StaffStep() - right[i-1].Pitch.StaffStep()
		require.Equal(t, -up, left[i].Pitch.StaffStep()-left[i-1].Pitch.StaffStep(), "note %d", i+1)
		require.Equal(t, right[i].Length, left[i].Length)
	}
	for _, step := range []string{"round", "answer", "held", "inverted"} {
		right, left, b := voices(step)
		require.Equal(t, b.Length, rational.Max(right[len(right)-1].End(), left[len(left)-1].End()), step)
	}
}
