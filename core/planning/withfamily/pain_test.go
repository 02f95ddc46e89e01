package withfamily

import (
	"testing"
	"time"

	"github.com/stretchr/testify/require"

	"patientladder/core/planning/plantest"
)

// Words of pain are found in both languages; words that only hold them are none.
func TestANoteOfPain(t *testing.T) {
	for text, hurts := range map[string]bool{
		"Her wrist hurts after the scale.":         true,
		"It was painful and a bit swollen":         true,
		"numbness in the little finger":            true,
		"Das Handgelenk tut ihr weh":               true,
		"Kribbeln in den Fingern":                  true,
		"Can we paint the keys?":                   false,
		"She played it to her aunt, and to us all": false,
		"the painting song":                        false,
		"We practised each day":                    false,
	} {
		require.Equal(t, hurts, Note{Kind: Question, Text: text}.Hurts(), text)
	}
	require.False(t, Note{Kind: MoveLesson, Text: "my tooth hurts, may we come on Friday?"}.Hurts())
}

// What hurts is read before everything else, until it is answered.
func TestWhatHurtsIsReadFirst(t *testing.T) {
	at := func(hours int) time.Time { return plantest.Monday.Add(time.Duration(hours) * time.Hour) }
	list := []Note{
		{ID: "asked", Kind: Question, Text: "How fast?", At: at(1)},
		{ID: "hurts", Kind: Question, Text: "Her thumb hurts", At: at(3)},
		{ID: "also", Kind: AlsoPlayed, Text: "A sea song", At: at(4)},
		{ID: "healed", Kind: Question, Text: "Her arm hurts", At: at(0), AnsweredAt: at(2)},
		{ID: "played", Kind: AlsoPlayed, Text: "the waltz, until her arm hurts", At: at(2)},
	}
	var got []string
	for _, n := range InTurn(list, func(n Note) Note { return n }) {
		got = append(got, n.ID)
	}
	require.Equal(t, []string{"played", "hurts", "asked", "also", "healed"}, got)
}

// What may be about pain is told by itself, whatever else was written, while it is not answered.
func TestHomeTellsOfPain(t *testing.T) {
	s := plantest.Pupil(t)
	notes := []Note{
		{Kind: Question, Text: "Her thumb hurts"}, {Kind: Question, Text: "How fast?"}, {Kind: Question, Text: "Her arm hurts", AnsweredAt: s.Now},
		{Kind: AlsoPlayed, Text: "the waltz, until her wrist hurts"},
	}
	out, ok := HomeOf(*s, nil, nil, notes[:1], s.Today)
	require.True(t, ok)
	require.Equal(t, []string{"Her thumb hurts"}, out.Hurts)
	out, _ = HomeOf(*s, nil, nil, notes, s.Today)
	require.Equal(t, []string{"Her thumb hurts", "the waltz, until her wrist hurts"}, out.Hurts)
	require.Equal(t, 3, Waiting(notes), "what may be about pain waits for an answer, whatever it was written as")
	require.Equal(t, []Note{notes[1]}, out.Asked)
}
