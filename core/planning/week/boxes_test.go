package week

import (
	"testing"

	"github.com/stretchr/testify/require"
)

func TestBoxesToTick(t *testing.T) {
	for _, x := range []struct {
		it     Item
		n      int
		joined bool
	}{
		{Item{Kind: Chunk, Times: 5}, 5, false}, {Item{Kind: Chunk, Times: 3, InRow: true}, 3, true},
		{Item{Kind: Listen, Times: 2, InRow: true}, 0, false}, {Item{Kind: Look, InRow: true}, 0, false},
	} {
		n, joined := x.it.Boxes()
		require.Equal(t, []any{x.n, x.joined}, []any{n, joined}, "%v", x.it)
	}
}
