package week

import (
	"testing"

	"github.com/stretchr/testify/require"

	"patientladder/core/student/studentlog"
)

// The log reads of a key what the week means by it: only what is a piece from start to end keeps it alive.
func TestWhatIsAWholePieceAtHome(t *testing.T) {
	whole := map[Kind]bool{Review: true, Whole: true, Drilled: true}
	for _, kind := range []Kind{Look, Hear, Chunk, Join, Whole, Spot, Again, Review, Preview, Listen, Drilled, Game} {
		it := Item{Kind: kind, Material: "rope-ladder", Hand: "left hand"}
		id, day, ok := studentlog.Entry{Kind: studentlog.Practised, Day: "2026-05-05", Item: keyOf(it)}.WholeAtHome()
		require.Equal(t, whole[kind], ok, kind)
		if ok {
			require.Equal(t, "rope-ladder", id)
			require.Equal(t, "2026-05-05", day.Format("2006-01-02"))
		}
	}
}
