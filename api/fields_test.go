package api_test

import (
	"maps"
	"net/http"
	"reflect"
	"slices"
	"strings"
	"testing"

	"github.com/stretchr/testify/require"

	"patientladder/api/contract"
	"patientladder/store/storetest"
)

// Each field of who a student is changes alone: an older page, which does not know the others, erases none of them. A field
// that is new in the contract has to be named here.
func TestOnlyWhatIsGivenOfAStudentChanges(t *testing.T) {
	u, student, _ := settled(t, slotOn(1, "15:00", 30, 1))
	contact := map[string]any{
		"id":       storetest.ID(),
		"name":     "Dana",
		"relation": "mother",
		"email":    "dana@harbour.example",
		"messages": true,
		"named":    "yes",
	}
	values := map[string][2]any{
		"name": {"Nell Farrow", "Nelly Farrow"}, "called": {"Nell", "Nelly"}, "born": {"2016-02-03", "2016-02-04"}, "bornAbout": {true, false},
		"notes": {"afraid of the metronome", "afraid no more"}, "since": {"2024-09-01", ""}, "contacts": {[]any{contact}, []any{}},
	}
	var fields []string
	for f := range reflect.TypeFor[contract.PersonChange]().Fields() {
		if name, _, _ := strings.Cut(f.Tag.Get("json"), ","); name != "version" {
			fields = append(fields, name)
		}
	}
	require.ElementsMatch(t, fields, slices.Collect(maps.Keys(values)))
	page := func() map[string]any {
		_, p := u.call("GET", "/api/students/"+student, nil)
		if p["since"] == nil {
			p["since"] = ""
		}
		return p
	}
	all := map[string]any{"version": 1}
	for f, v := range values {
		all[f] = v[0]
	}
	status, body := u.call("PATCH", "/api/students/"+student, all)
	require.Equal(t, http.StatusNoContent, status, body)
	want := page()
	for f, v := range values {
		require.Equal(t, v[0], want[f], f)
	}
	for _, f := range fields {
		status, body := u.call("PATCH", "/api/students/"+student, map[string]any{"version": want["version"], f: values[f][1]})
		require.Equal(t, http.StatusNoContent, status, body)
		got := page()
		want[f], want["version"] = values[f][1], want["version"].(float64)+1
		for _, other := range append(fields, "version") {
			require.Equal(t, want[other], got[other], "%s, when %s changes", other, f)
		}
	}
	exported := u.raw("GET", "/api/students/"+student+"/data", nil, nil)
	require.Equal(t, http.StatusOK, exported.StatusCode)
	exported.Body.Close()
}
