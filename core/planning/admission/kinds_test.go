package admission

import (
	"maps"
	"slices"
	"testing"

	"github.com/stretchr/testify/require"

	"patientladder/core/student/studentlog"
)

// Every kind of entry says when it can be added.
func TestEveryKindOfEntryIsAdmittedOrRefused(t *testing.T) {
	require.Equal(t, studentlog.Kinds(), slices.Sorted(maps.Keys(admissions)))
}
