package standing

import (
	"testing"
	"time"

	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"patientladder/core/base/civil"
	"patientladder/core/student/memory"
	"patientladder/core/student/studentlog"
)

// atHome ticks a thing on a day after the first lesson, written on the same day.
func (w *tell) atHome(day int, item string, felt studentlog.Feeling) studentlog.Entry {
	w.at = monday.AddDate(0, 0, day)
	return w.write(studentlog.Entry{
		Kind: studentlog.Practised, Actor: studentlog.Family, Item: item, Felt: felt, Day: w.at.Format("2006-01-02"),
	})
}

// learned is a log in which a piece was cleared at the first lesson.
func learned() *tell {
	w := (&tell{}).week(0)
	w.assign("p1")
	w.write(studentlog.Entry{Kind: studentlog.Cleared, Material: "p1"})
	return w
}

// half is a memory half way between two.
func half(a, b memory.State) memory.State {
	return memory.State{Stability: (a.Stability + b.Stability) / 2, Difficulty: (a.Difficulty + b.Difficulty) / 2}
}

func TestALearnedPieceAgesFromTheDayItWasPlayedAtHome(t *testing.T) {
	ctx := context(t)
	first := civil.On(monday)
	p := memory.DefaultParams()
	kept := Fold(learned().log, ctx).Materials["p1"].Memory
	for name, c := range map[string]struct {
		tell func(w *tell)
		want memory.State
		on   civil.Day
		home civil.Day
	}{
		"fine, half of what a hearing is worth": {
			func(w *tell) { w.atHome(2, "review p1", studentlog.Fine) }, half(kept, p.Next(kept, 2, memory.Solid)), first + 2, first + 2,
		},
		"hard, as one that was shaky": {
			func(w *tell) { w.atHome(2, "review p1", studentlog.Hard) }, half(kept, p.Next(kept, 2, memory.Shaky)), first + 2, first + 2,
		},
		"the last answer for a day holds": {
			func(w *tell) {
				w.atHome(2, "review p1", studentlog.Hard)
				w.atHome(2, "review p1", studentlog.Joyful)
			},
			half(kept, p.Next(kept, 2, memory.Solid)), first + 2, first + 2,
		},
		"taken back, as if it had never been": {
			func(w *tell) {
				e := w.atHome(2, "review p1", studentlog.Fine)
				w.write(studentlog.Entry{Kind: studentlog.Correction, Actor: studentlog.Family, Corrects: e.ID})
			},
			kept, first, 0,
		},
		"some bars are not the piece":     {func(w *tell) { w.atHome(2, "chunk p1 1-2", studentlog.Fine) }, kept, first, 0},
		"listening is not playing":        {func(w *tell) { w.atHome(2, "listen p1", studentlog.Fine) }, kept, first, 0},
		"before the lesson that heard it": {func(w *tell) { w.atHome(0, "review p1", studentlog.Fine) }, kept, first, first},
		"a piece that nobody had":         {func(w *tell) { w.atHome(2, "review nothing", studentlog.Fine) }, kept, first, 0},
		"sixty days of ticks: four times, never for good": {
			func(w *tell) {
				for day := range 60 {
					w.atHome(day+1, "review p1", studentlog.Joyful)
				}
			},
			memory.State{Stability: 4 * kept.Stability}, first + 60, first + 60,
		},
	} {
		t.Run(name, func(t *testing.T) {
			w := learned()
			c.tell(w)
			m := Fold(w.log, ctx).Materials["p1"]
			require.InDelta(t, c.want.Stability, m.Memory.Stability, 1e-12)
			if c.want.Difficulty > 0 {
				require.InDelta(t, c.want.Difficulty, m.Memory.Difficulty, 1e-12)
			}
			require.Equal(t, c.on, m.HeardOn)
			require.Equal(t, c.home, m.AtHomeOn)
		})
	}
}

// What was chosen to be played first was played; “not played for” asks home too, and a lesson afterwards counts in full.
func TestNotPlayedForAsksHomeToo(t *testing.T) {
	ctx := context(t)
	w := learned()
	w.at = monday.AddDate(0, 0, 30)
	w.write(studentlog.Entry{Kind: studentlog.Liking, Actor: studentlog.Family, Material: "p1", Sign: studentlog.PlayedFirst})
	s := Fold(w.log, ctx)
	require.Equal(t, 40, s.Materials["p1"].Unplayed(s, ctx.Day))
	require.Equal(t, 40, s.Materials["p1"].Unheard(ctx.Day))
	require.Equal(t, monday.AddDate(0, 0, 0).Day(), s.Materials["p1"].LastPlayed.Day(), "the lesson stays the last lesson")

	home := s.Materials["p1"].Memory
	w.at = monday.AddDate(0, 0, 35)
	w.write(studentlog.Entry{Kind: studentlog.Hearing, Material: "p1", Rating: 3})
	p := memory.DefaultParams()
	alone := p.Next(Fold(learned().log, ctx).Materials["p1"].Memory, 35, memory.Solid)
	require.Greater(t, alone.Stability, p.Next(home, 5, memory.Solid).Stability, "what is fresh gains little by being heard")
	require.InDelta(t, alone.Stability, Fold(w.log, ctx).Materials["p1"].Memory.Stability, 1e-12, "and playing at home takes nothing away")

	ctx.Policy.AtHome = 0
	require.Equal(t, 70, Fold(learned().log, ctx).Materials["p1"].Unheard(ctx.Day))
	off := Fold(w.log, ctx).Materials["p1"]
	require.Zero(t, off.AtHomeOn, "a studio that does not count it")
}

// Whatever is played at home, and however it is called: a piece is never remembered worse than without it.
func TestPlayingAtHomeTakesNothingAway(t *testing.T) {
	ctx := context(t)
	rapid.Check(t, func(t *rapid.T) {
		w, lessons := learned(), learned()
		day := 0
		for range rapid.IntRange(1, 12).Draw(t, "things") {
			day += rapid.IntRange(0, 6).Draw(t, "days")
			if rapid.Bool().Draw(t, "home") {
				w.atHome(day, "review p1", rapid.SampledFrom([]studentlog.Feeling{studentlog.Hard, studentlog.Fine, ""}).Draw(t, "felt"))
				continue
			}
			rating := rapid.IntRange(1, 4).Draw(t, "rating")
			for _, x := range []*tell{w, lessons} {
				x.at = monday.AddDate(0, 0, day).Add(time.Hour)
				x.write(studentlog.Entry{Kind: studentlog.Hearing, Material: "p1", Rating: rating})
			}
		}
		with, without := Fold(w.log, ctx).Materials["p1"], Fold(lessons.log, ctx).Materials["p1"]
		require.GreaterOrEqual(t, with.Recall(ctx.Day, ctx.Policy.Memory), without.Recall(ctx.Day, ctx.Policy.Memory)-1e-12)
	})
}
