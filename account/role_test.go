package account

import (
	"testing"

	"github.com/stretchr/testify/require"
)

func TestWhoMayDoWhat(t *testing.T) {
	for call, want := range map[[2]string]bool{
		{"GET", "/today"}: true, {"POST", "/ladders/x/entries"}: true, {"DELETE", "/session"}: true, {"PUT", "/account/password"}: true,
		{"POST", "/account/people"}: false, {"PUT", "/ladders/x/week"}: false, {"GET", "/library/export"}: false, {"POST", "/students"}: false,
		{"DELETE", "/ladders/x/entries"}: false,
	} {
		require.Equal(t, want, Assistant.May(call[0], call[1]), call)
		require.True(t, Teacher.May(call[0], call[1]))
		require.True(t, Owner.May(call[0], call[1]))
	}
	require.Equal(t, []bool{true, false, false}, []bool{Owner.Owns(), Teacher.Owns(), Assistant.Owns()})
	require.True(t, Assistant.Known())
	require.False(t, Role("cook").Known())
}

// Whose students somebody sees in lists, and may open: o owner, t teacher, a assistant; own, a colleague's, covered, the owner's.
func TestWhoseStudents(t *testing.T) {
	for _, c := range []struct {
		role           Role
		of             string
		covered        bool
		teaches, opens bool
	}{
		{Owner, "me", false, true, true}, {Owner, "other", false, false, true}, {Owner, "other", true, true, true},
		{Owner, "", false, true, true},
		{Teacher, "me", false, true, true}, {Teacher, "other", false, false, false}, {Teacher, "other", true, true, true},
		{Teacher, "", false, false, false},
		{Assistant, "other", false, true, true}, {Assistant, "", false, true, true},
	} {
		require.Equal(t, c.teaches, c.role.Teaches("me", c.of, c.covered), "%+v", c)
		require.Equal(t, c.opens, c.role.Opens("me", c.of, c.covered), "%+v", c)
	}
	require.Equal(t, []bool{true, true, false, true, false, false}, []bool{
		Owner.Keeps("me", "me"), Owner.Keeps("me", ""), Owner.Keeps("me", "other"), Teacher.Keeps("me", "me"), Teacher.Keeps("me", ""),
		Assistant.Keeps("me", ""),
	}, "private notes: of the own teacher, whoever covers or owns")
}
