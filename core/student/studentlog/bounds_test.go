package studentlog

import (
	"strings"
	"testing"
	"time"

	"github.com/stretchr/testify/require"
)

// Each kind at its bounds and just beyond them.
func TestEntriesHaveBounds(t *testing.T) {
	for _, c := range []struct {
		name string
		e    Entry
		good bool
	}{
		{"one bar", Entry{Kind: SpotAdded, Material: "m", From: 1, To: 1}, true},
		{"no bar", Entry{Kind: SpotAdded, Material: "m", From: 0, To: 1}, false},
		{"backwards", Entry{Kind: SpotAdded, Material: "m", From: 2, To: 1}, false},
		{"a spot of nothing", Entry{Kind: SpotAdded, From: 1, To: 1}, false},
		{"which spot", Entry{Kind: SpotMended, Material: "m", Spot: "s"}, true},
		{"no spot", Entry{Kind: SpotMended, Material: "m"}, false},
		{"a spot of no piece", Entry{Kind: SpotMended, Spot: "s"}, false},
		{"rated 1", Entry{Kind: Hearing, Material: "m", Rating: 1}, true},
		{"rated 4", Entry{Kind: Hearing, Material: "m", Rating: 4}, true},
		{"rated 0", Entry{Kind: Hearing, Material: "m"}, false},
		{"rated 5", Entry{Kind: Hearing, Material: "m", Rating: 5}, false},
		{"the first option", Entry{Kind: Activity, Goal: "g", Step: 1}, true},
		{"no option", Entry{Kind: Activity, Goal: "g"}, false},
		{"no goal", Entry{Kind: Activity, Step: 1}, false},
		{"the first step", Entry{Kind: StepDone, Skill: "s", Step: 1}, true},
		{"no step", Entry{Kind: StepDone, Skill: "s"}, false},
		{"no skill", Entry{Kind: StepDone, Step: 1}, false},
		{"a probe of nothing", Entry{Kind: Probe}, false},
		{"nothing went well", Entry{Kind: WentWell, Text: " "}, false},
		{"an empty note", Entry{Kind: Note, Text: "\n"}, false},
		{"a day's practice", Entry{Kind: Practised, Minutes: 1440, Times: MostTimes, Felt: Hard}, true},
		{"no practice", Entry{Kind: Practised}, true},
		{"less than none", Entry{Kind: Practised, Minutes: -1}, false},
		{"more than a day", Entry{Kind: Practised, Minutes: 1441}, false},
		{"too often", Entry{Kind: Practised, Times: MostTimes + 1}, false},
		{"less often than never", Entry{Kind: Practised, Times: -1}, false},
		{"it felt blue", Entry{Kind: Practised, Felt: "blue"}, false},
		{"as slow as it goes", Entry{Kind: TempoPlayed, Material: "m", Tempo: 20}, true},
		{"as quick as it goes", Entry{Kind: TempoPlayed, Material: "m", Tempo: 400}, true},
		{"slower", Entry{Kind: TempoPlayed, Material: "m", Tempo: 19}, false},
		{"quicker", Entry{Kind: TempoPlayed, Material: "m", Tempo: 401}, false},
		{"a tempo of nothing", Entry{Kind: TempoPlayed, Tempo: 60}, false},
		{"an end of a climb", Entry{Kind: ClimbBegun, Material: "m", Climb: &Climb{}}, true},
		{"a climb of no weeks", Entry{Kind: ClimbBegun, Material: "m", Climb: &Climb{From: 60, To: 80}}, false},
		{"a climb from nowhere", Entry{Kind: ClimbBegun, Material: "m", Climb: &Climb{To: 80, Weeks: 3}}, false},
		{"a climb of nothing", Entry{Kind: ClimbBegun, Climb: &Climb{}}, false},
		{"a point", Entry{Kind: FocusAdded, Focus: "f", Text: "heavy elbows"}, true},
		{"a point without words", Entry{Kind: FocusAdded, Focus: "f", Text: " "}, false},
		{"words without a point", Entry{Kind: FocusAdded, Text: "heavy elbows"}, false},
		{"a correction", Entry{Kind: Correction, Corrects: "other"}, true},
		{"of nothing", Entry{Kind: Correction}, false},
		{"of itself", Entry{Kind: Correction, Corrects: "e"}, false},
		{"the longest text", Entry{Kind: Note, Text: strings.Repeat("x", MaxText)}, true},
		{"a longer one", Entry{Kind: Note, Text: strings.Repeat("x", MaxText+1)}, false},
		{"a gate", Entry{Kind: GateSet, Material: "m", Gate: LeftOnly}, true},
		{"no gate", Entry{Kind: GateSet, Material: "m", Gate: "open"}, false},
		{"a gate of nothing", Entry{Kind: GateSet, Gate: LeftOnly}, false},
	} {
		c.e.ID, c.e.At = "e", time.Date(2026, 5, 4, 15, 0, 0, 0, time.UTC)
		if err := c.e.Validate(); c.good {
			require.NoError(t, err, c.name)
		} else {
			require.Error(t, err, c.name)
		}
	}
}
