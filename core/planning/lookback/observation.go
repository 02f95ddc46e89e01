package lookback

import (
	"cmp"
	"slices"

	"patientladder/core/student/studentlog"
)

const (
	// mostUsual is how many of the usual observations are offered (default).
	mostUsual = 4
	// longestUsual is the longest that is offered, in bytes (default): longer ones are said once.
	longestUsual = 60
)

// UsualObservations are the notes that were written most often, and at least twice; of those
// written as often the latest come first. Live is the log as it counts.
func UsualObservations(live []*studentlog.Entry) []string {
	count, last := map[string]int{}, map[string]int{}
	for i, e := range live {
		if e.Kind == studentlog.Note && len(e.Text) <= longestUsual {
			count[e.Text]++
			last[e.Text] = i
		}
	}
	words := []string{}
	for text, n := range count {
		if n > 1 {
			words = append(words, text)
		}
	}
	slices.SortFunc(words, func(a, b string) int { return cmp.Or(count[b]-count[a], last[b]-last[a]) })
	return words[:min(len(words), mostUsual)]
}
