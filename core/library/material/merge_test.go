package material

import (
	"testing"

	"github.com/stretchr/testify/require"
)

func TestWhichPiecesCanBeMerged(t *testing.T) {
	m := func(id, part, instrument string) Material {
		return Material{ID: id, PartOf: part, Instrument: instrument}
	}
	split := map[string]bool{"s": true}
	require.NoError(t, MayMerge(m("a", "", "piano"), m("b", "", "piano"), split))
	require.Equal(t, ErrMergeSelf, MayMerge(m("a", "", "piano"), m("a", "", "piano"), split))
	require.Equal(t, ErrMergeOther, MayMerge(m("a", "", "piano"), m("b", "", "cello"), split))
	for _, x := range [][2]Material{
		{m("s", "", "piano"), m("b", "", "piano")}, {m("a", "", "piano"), m("s", "", "piano")},
		{m("a", "x", "piano"), m("b", "", "piano")}, {m("a", "", "piano"), m("b", "x", "piano")},
	} {
		require.Equal(t, ErrMergeSplit, MayMerge(x[0], x[1], split))
	}
}
