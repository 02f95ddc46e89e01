package sorting

import (
	"testing"

	"github.com/stretchr/testify/require"
)

func TestNoComesBeforeYes(t *testing.T) {
	require.Equal(t, []int{0, -1, 1, 0}, []int{FalseFirst(false, false), FalseFirst(false, true), FalseFirst(true, false), FalseFirst(true, true)})
	require.Equal(t, []int{0, 1, -1, 0}, []int{TrueFirst(false, false), TrueFirst(false, true), TrueFirst(true, false), TrueFirst(true, true)})
}
