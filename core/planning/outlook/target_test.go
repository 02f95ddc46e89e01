package outlook

import (
	"testing"

	"github.com/stretchr/testify/require"
)

func TestWhichTargetHasALatestStart(t *testing.T) {
	for v, want := range map[*Verdict]bool{
		{LatestStart: 3, Possible: true}: true, {LatestStart: 3}: false, {LatestStart: 3, Possible: true, Begun: true}: false,
	} {
		lesson, ok := v.HasToBegin()
		require.Equal(t, []any{3, want}, []any{lesson, ok})
	}
}
