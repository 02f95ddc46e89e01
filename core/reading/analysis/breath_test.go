package analysis

import (
	"testing"

	"github.com/stretchr/testify/require"

	"patientladder/core/notation/abc"
)

func asked(t *testing.T, player, text string) map[string][]int {
	t.Helper()
	tunes, err := abc.Read([]byte("X:1\nL:1/4\nM:4/4\n" + text))
	require.NoError(t, err)
	return Of(tunes[0], player).Technique
}

// The range of a flute by stages (handbook order of first notes, from memory): G to C, then D to the G above the staff, then
// all; a phrase is measured in seconds at the tempo of the piece, and breath is taken at rests, breath marks and after long notes.
func TestWhatASingleLineAsks(t *testing.T) {
	f := asked(t, "flute", "Q:1/4=60\nK:C\nG A B c|D E F z|d e' c'' G|")
	require.Equal(t, []int{1, 3}, f["range.stage-1"])
	require.Equal(t, []int{2, 3}, f["range.stage-2"])
	require.Equal(t, []int{3}, f["range.stage-3"])
	require.Empty(t, f["breath.long"], "seven beats until the rest are seven seconds")
	require.Equal(t, []int{1, 2, 3}, f["breath.phrase"])

	slow := asked(t, "flute", "Q:1/4=40\nK:C\nG A B c|D E F z|")
	require.Equal(t, []int{1, 2}, slow["breath.long"], "ten and a half seconds")
	fast := asked(t, "flute", "Q:1/4=160\nK:C\nG A B c|D E F z|")
	require.Empty(t, fast["breath.phrase"])
	marked := asked(t, "flute", "Q:1/4=40\nK:C\nG A !breath!B c|D E !breath!F G|")
	require.Empty(t, marked["breath.long"])
	long := asked(t, "voice", "Q:1/4=60\nK:C\nG A B2|A B c2|")
	require.Equal(t, []int{1, 2}, long["breath.phrase"], "four seconds each, and not eight")
	require.Empty(t, long["breath.long"])

	require.Empty(t, asked(t, "piano", "K:C\nG A B c|")["range.stage-1"])
	require.Empty(t, asked(t, "harp", "Q:1/4=40\nK:C\nG A B c|G A B c|G A B c|")["breath.long"], "a harp does not breathe")
	drums := asked(t, "drums", "L:1/16\nK:C\nBBBB B4 B4 B4|B4 B4 B4 B4|")
	require.Equal(t, []int{1, 2}, drums["strokes"])
	require.Equal(t, []int{1}, drums["strokes.quick"])
}

// Under a slur on one string the left hand sounds the second note: upwards a finger falls, downwards it pulls away; on
// another string it is plucked (common practice). Inside a picking pattern both are asked for at once.
func TestNotesThatTheLeftHandSounds(t *testing.T) {
	f := asked(t, "guitar", "K:C\n(C D) (D C)|(E F) (c G)|")
	require.Equal(t, []int{1, 2}, f["join.hammer-on"])
	require.Equal(t, []int{1}, f["join.pull-off"])
	require.Empty(t, f["join.picked"])
	f = asked(t, "guitar", "L:1/8\nK:C\nG,B,EB, G,B,EB,|(G,A,) B,E G,B,EB,|")
	require.Equal(t, []int{2}, f["join.picked"])
	require.Empty(t, asked(t, "violin", "K:C\n(C D) (D C)|")["join.hammer-on"])
}
