package wording_test

import (
	"testing"

	"github.com/stretchr/testify/require"

	"patientladder/core/wording"
)

// What systems refuse in the names of files (from memory).
func TestTitlesBecomeNamesOfFiles(t *testing.T) {
	require.Equal(t, "Gavotte, No. 2 - “Ode” ü", wording.FileName("Gavotte, No. 2 / “Ode” ü"))
	require.Equal(t, "a-b-c-d-e-f-g-h-i-j", wording.FileName("a\\b:c*d?e\"f<g>h|i\nj"))
	require.Equal(t, "a b", wording.FileName("a b"), "a space stays")
}
