package tongue

import (
	"maps"
	"regexp"
	"slices"
	"strings"
	"testing"
	"time"

	"github.com/stretchr/testify/require"
)

var places = regexp.MustCompile(`\{[a-z]+\}`)

// Every language says the same things, with the same places to fill.
func TestEveryLanguageSaysTheSame(t *testing.T) {
	english := Of(English)
	for _, other := range All()[1:] {
		require.Equal(t, slices.Sorted(maps.Keys(english.texts)), slices.Sorted(maps.Keys(other.texts)), other.ID)
		for key, text := range english.texts {
			fill := func(s string) []string {
				return slices.Compact(slices.Sorted(slices.Values(places.FindAllString(s, -1))))
			}
			require.NotEmpty(t, other.texts[key], key)
			if key == "parent.look.old" { // one language names the child where the other asks
				continue
			}
			require.Equal(t, fill(text), fill(other.texts[key]), "%s in %s", key, other.ID)
		}
		require.Len(t, strings.Fields(other.texts["weekdays"]), 7)
		require.Len(t, strings.Fields(other.texts["months"]), 12)
	}
}

func TestWhatIsSaid(t *testing.T) {
	en, de := Of("en"), Of("de")
	day := time.Date(2026, 5, 4, 0, 0, 0, 0, time.UTC)
	require.Equal(t, []string{"Monday 4 May", "Montag, 4. Mai"}, []string{en.WeekdayAndDay(day), de.WeekdayAndDay(day)})
	require.Equal(t, "right hand: finger 2 on E", en.Say("start.keys", "hand", "right hand", "finger", "finger 2", "key", "E"))
	require.Equal(t, "a, b und c", de.List([]string{"a", "b", "c"}))
	require.Equal(t, "English", Of("xx").Name(), "an unknown language is English")
	require.Equal(t, "", en.Say("nothing.like.it"))
	require.Equal(t, "bar {from}", en.Texts("where")["bar"])
	require.True(t, Known("de"))
	require.False(t, Known("DE"))
}

// No line is longer than two lines on a phone (about 45 letters each) where somebody reads it beside a child.
func TestNobodyReadsMoreThanTwoLines(t *testing.T) {
	for _, l := range All() {
		for key, text := range l.texts {
			if group, _, _ := strings.Cut(key, "."); group == "parent" || group == "child" || group == "good" || group == "geo" {
				require.LessOrEqual(t, len([]rune(text)), 92, "%s %s", l.ID, key)
			}
		}
	}
}
