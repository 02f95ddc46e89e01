package api

import (
	"testing"

	"github.com/stretchr/testify/require"

	"patientladder/api/admit"
)

// Heavy work has its budget by what is asked; what is light has none.
func TestTheBudgetOfACall(t *testing.T) {
	b := newBudgets()
	for call, want := range map[[2]string]*admit.Budget{
		{"GET", "/api/account/studio/export"}: b.export, {"GET", "/api/students/x/data"}: b.export, {"DELETE", "/api/students/x/data"}: nil, {"GET", "/api/library/books/x/checks"}: b.export,
		{"POST", "/api/materials"}: b.reading, {"GET", "/api/materials"}: nil, {"PUT", "/api/materials/x/score"}: b.reading, {"GET", "/api/materials/x/score"}: nil,
		{"POST", "/api/scores/typed"}: b.reading, {"POST", "/api/library/import"}: b.reading, {"GET", "/api/library/x"}: nil, {"POST", "/api/students"}: nil,
		{"GET", "/api/overview"}: b.studio, {"POST", "/api/overview"}: nil, {"GET", "/api/studio-year"}: b.studio, {"GET", "/api/learned"}: b.studio, {"GET", "/api/today"}: b.studio,
		{"GET", "/api/calendar"}: b.studio, {"GET", "/api/reports"}: b.studio, {"GET", "/api/programme"}: b.studio, {"GET", "/api/ladders/x/lesson"}: nil,
	} {
		require.Same(t, want, b.of(call[0], call[1]), "%v", call)
	}
}
