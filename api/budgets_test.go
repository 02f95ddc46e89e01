package api

import (
	"testing"

	"github.com/stretchr/testify/require"

	"patientladder/api/admit"
)

// Every kind of work has its budget by what is asked; what is asked without a session has none.
func TestTheBudgetOfACall(t *testing.T) {
	b := newBudgets()
	for call, want := range map[[2]string]*admit.Budget{
		{"GET", "/api/account/studio/export"}: b.export, {"GET", "/api/students/x/data"}: b.export, {"DELETE", "/api/students/x/data"}: b.usual,
		{"GET", "/api/library/books/x/checks"}: b.export,
		{"POST", "/api/materials"}:             b.reading, {"GET", "/api/materials"}: b.usual, {"PUT", "/api/materials/x/score"}: b.reading,
		{"GET", "/api/materials/x/score"}: b.piece, {"GET", "/api/materials/x"}: b.piece,
		{"POST", "/api/scores/typed"}: b.reading, {"POST", "/api/library/import"}: b.reading, {"GET", "/api/library/x"}: b.usual,
		{"POST", "/api/students"}: b.usual,
		{"GET", "/api/overview"}:  b.studio, {"POST", "/api/overview"}: b.usual, {"GET", "/api/studio-year"}: b.studio,
		{"GET", "/api/learned"}: b.studio, {"GET", "/api/today"}: b.studio,
		{"GET", "/api/calendar"}: b.studio, {"GET", "/api/reports"}: b.studio, {"GET", "/api/programme"}: b.studio,
		{"GET", "/api/ladders/x/lesson"}: b.usual, {"POST", "/api/session"}: nil, {"GET", "/api/family/x"}: nil, {"PUT", "/api/recovery"}: nil,
		{"GET", "/api/teacher/x/calendar"}: nil,
	} {
		require.Same(t, want, b.of(call[0], call[1]), "%v", call)
	}
}
