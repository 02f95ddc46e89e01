package account

import (
	"testing"

	"github.com/stretchr/testify/require"
)

func TestWhoMayDoWhat(t *testing.T) {
	for call, want := range map[[2]string]bool{
		{"GET", "/today"}: true, {"POST", "/ladders/x/entries"}: true, {"DELETE", "/session"}: true, {"PUT", "/account/password"}: true,
		{"POST", "/account/people"}: false, {"PUT", "/ladders/x/week"}: false, {"GET", "/library/export"}: false, {"POST", "/students"}: false, {"DELETE", "/ladders/x/entries"}: false,
	} {
		require.Equal(t, want, Assistant.May(call[0], call[1]), call)
		require.True(t, Teacher.May(call[0], call[1]))
		require.True(t, Owner.May(call[0], call[1]))
	}
	require.Equal(t, []bool{true, false, false}, []bool{Owner.Owns(), Teacher.Owns(), Assistant.Owns()})
	require.True(t, Assistant.Known())
	require.False(t, Role("cook").Known())
}
