package curriculum

import (
	"testing"

	"github.com/stretchr/testify/require"
)

// What a column holds is shown by its first three cells that hold anything; short rows count as empty ones.
func TestSamplesOfAColumn(t *testing.T) {
	table := Table{Columns: []string{"a", "b"}, Rows: [][]string{{"1", ""}, {"2"}, {"3", "x"}, {"4", "y"}, {"5", "z"}, {"6", "w"}}}
	require.Equal(t, []string{"1", "2", "3"}, table.Samples(0))
	require.Equal(t, []string{"x", "y", "z"}, table.Samples(1))
	require.Equal(t, []string{}, table.Samples(2))
}
