package section

import (
	"testing"

	"github.com/stretchr/testify/require"

	"patientladder/core/reading/chunk"
)

func TestSectionsAreProposedWhereChunksMeet(t *testing.T) {
	leaf := func(from, to int) chunk.Chunk { return chunk.Chunk{From: from, To: to} }
	join := func(a, b chunk.Chunk) chunk.Chunk {
		return chunk.Chunk{From: a.From, To: b.To, Parts: []chunk.Chunk{a, b}}
	}
	half := join(leaf(1, 8), leaf(9, 16))
	require.Equal(t, []Section{{From: 1, To: 8}, {From: 9, To: 16}}, Propose(half))
	require.Equal(t, []Section{{From: 1, To: 8}, {From: 9, To: 16}, {From: 17, To: 40}}, Propose(join(half, leaf(17, 40))))
	require.Empty(t, Propose(join(leaf(1, 7), leaf(8, 15))), "fifteen bars are no large unit")
}
