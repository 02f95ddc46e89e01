package learning

import (
	"testing"
	"time"

	"github.com/stretchr/testify/require"

	"patientladder/core/base/calendar"
	"patientladder/core/base/civil"
	"patientladder/core/library/material"
	"patientladder/core/library/skill"
	"patientladder/core/planning/forecast"
	"patientladder/core/planning/ladder"
	"patientladder/core/planning/studentplan"
	"patientladder/core/student/leap"
	"patientladder/core/student/memory"
	"patientladder/core/student/standing"
	"patientladder/core/student/studentlog"
)

func library() material.Library {
	piece := func(id string, demands ...material.Demand) material.Material {
		return material.Material{
			ID:           id,
			Title:        id,
			Strand:       material.Method,
			Instrument:   "piano",
			DistinctBars: 8,
			Bars:         8,
			HasScore:     true,
			Demands:      demands,
		}
	}
	return material.Library{
		"fog": piece(
			"fog",
			material.Demand{Skill: "ties", Weight: 1, Origin: "score"},
			material.Demand{Skill: "thumb", Weight: 0.5, Origin: "teacher"},
		),
		"tide": piece("tide", material.Demand{Skill: "ties", Weight: 1.6, Origin: "score"}),
		"gull": piece("gull", material.Demand{Skill: "pulse", Weight: 1, Origin: "score"}),
		"bare": {ID: "bare", Title: "bare", Strand: material.Method, Instrument: "piano"},
	}
}

// Weights are used over the table's, and not where the teacher has set one; the library stays as it is.
func TestWeightsOverTheTable(t *testing.T) {
	lib := library()
	used := Used{Factors: map[string]float64{"ties": 1.5, "thumb": 2}}
	over := used.Over(lib)
	require.Equal(t, []float64{1.5, 0.5}, []float64{over["fog"].Demands[0].Weight, over["fog"].Demands[1].Weight})
	require.InDelta(t, 2.4, over["tide"].Demands[0].Weight, 1e-9)
	require.Equal(t, 1.0, over["gull"].Demands[0].Weight)
	bare := lib["fog"]
	bare.HasScore = false
	require.Equal(
		t,
		1.0,
		used.Over(material.Library{"fog": bare})["fog"].Demands[1].Weight,
		"what a table says of a piece without a score may be learned",
	)
	require.Equal(t, library(), lib)
	require.Equal(t, lib, Used{}.Over(lib))
	require.True(t, used.Any())
	require.True(t, Used{Scale: 2}.Any())
	require.False(t, Used{At: monday}.Any())
}

// Only what foretells better is offered.
func TestOnlyWhatForetellsBetterIsOffered(t *testing.T) {
	s, f := Skills{Weights: []Weight{{Skill: "ties", Factor: 1.4}}}, Fade{Scale: 0.6}
	require.Equal(t, Used{At: monday}, Offer(s, f, monday))
	s.Better = true
	require.Equal(t, Used{Factors: map[string]float64{"ties": 1.4}, At: monday}, Offer(s, f, monday))
	s.Better, f.Better = false, true
	require.Equal(t, Used{Scale: 0.6, At: monday}, Offer(s, f, monday))
}

func pupil(t *testing.T, lib material.Library, log []studentlog.Entry) studentplan.Student {
	skills, err := skill.Parse(
		[]byte(
			`[{"id":"ties","name":"ties","steps":["a"]},{"id":"thumb","name":"thumb","steps":["a"]},{"id":"pulse","name":"pulse","steps":["a"]}]`,
		),
	)
	require.NoError(t, err)
	today := monday.Truncate(24 * time.Hour)
	s := studentplan.Student{
		Studio: studentplan.Studio{Library: lib, Skills: skills, Zone: time.UTC, Today: today, Now: monday},
		Profile: studentplan.Profile{
			Ladder:     "L",
			Name:       "Nell",
			Instrument: "piano",
			Lessons:    calendar.Weekly(time.Monday, 900, 30, today.AddDate(-3, 0, 0)),
		},
		Policy: studentplan.Policy{Standing: standing.DefaultPolicy()},
	}
	s.Standing = standing.Fold(log, standing.Context{Library: lib, Skills: skills, Family: s.Family(), Policy: s.Policy.Standing, Day: today})
	return s
}

func entry(id string, weeksAgo int, kind studentlog.Kind, material string, rating int) studentlog.Entry {
	return studentlog.Entry{ID: id, At: monday.AddDate(0, 0, -7*weeksAgo), Actor: "T", Kind: kind, Material: material, Rating: rating}
}

func story() []studentlog.Entry {
	return []studentlog.Entry{
		entry("e1", 20, studentlog.Assigned, "fog", 0), entry("e2", 16, studentlog.Cleared, "fog", 0),
		entry("e3", 16, studentlog.Assigned, "bare", 0), entry("e4", 15, studentlog.Cleared, "bare", 0),
		entry("e5", 15, studentlog.Assigned, "tide", 0), entry("e6", 9, studentlog.Cleared, "tide", 0),
		entry("e7", 6, studentlog.Hearing, "fog", 1), entry("e8", 4, studentlog.Polished, "fog", 0), entry("e9", 3, studentlog.Hearing, "fog", 3),
		entry("f1", 2, studentlog.Assigned, "gull", 0), {ID: "f2", At: monday, Actor: "T", Kind: studentlog.KnownBefore, Skill: "pulse"},
	}
}

// What a piece tells is told with the table's weights, whether others are used or not; what nobody knows tells nothing.
func TestPiecesTellByTheTable(t *testing.T) {
	lib := library()
	plain := ClearedBy(pupil(t, lib, story()), Used{})
	require.Len(t, plain, 2)
	require.Equal(t, map[string]float64{"ties": 1}, plain[0].Parts, "new, and what was set by hand is not learned")
	require.InDelta(t, 1.5, plain[0].Leap, 1e-9)
	require.Equal(t, []float64{4, 6}, []float64{plain[0].Weeks, plain[1].Weeks})
	require.InDelta(t, 1.6*0.3, plain[1].Parts["ties"], 1e-9, "cleared once: being learned")
	used := Used{Factors: map[string]float64{"ties": 1.25}}
	other := ClearedBy(pupil(t, used.Over(lib), story()), used)
	for i := range plain {
		require.InDelta(t, plain[i].Leap, other[i].Leap, 1e-9)
		require.InDelta(t, plain[i].Parts["ties"], other[i].Parts["ties"], 1e-9)
	}
}

func TestTheHistoriesOfLearnedPieces(t *testing.T) {
	log := story()
	h := HeardBy(pupil(t, library(), log), studentlog.Live(log))
	require.Len(t, h, 3, "bare, fog and tide; the Gull is in work")
	at := func(weeksAgo int) time.Time { return monday.AddDate(0, 0, -7*weeksAgo) }
	require.Equal(
		t,
		[]Heard{
			{at(16), civil.On(at(16)), memory.Solid, false},
			{at(6), civil.On(at(6)), memory.FellApart, true},
			{at(4), civil.On(at(4)), memory.Easy, false},
			{at(3), civil.On(at(3)), memory.Solid, true},
		},
		h[1],
	)
	require.Equal(t, []Heard{{at(9), civil.On(at(9)), memory.Solid, false}}, h[2])
	require.Equal(t, 2, LearnFade(h, memory.DefaultParams()).Heard)
}

// What would move is announced: the pieces in work and the next of each strand, the largest change first.
func TestWhatWouldMove(t *testing.T) {
	lib := library()
	s := pupil(t, lib, []studentlog.Entry{entry("e1", 2, studentlog.Assigned, "fog", 0)})
	var placed []ladder.Placed
	for _, id := range []string{"fog", "tide", "gull"} {
		placed = append(placed, ladder.Placed{Material: id, Strand: material.Method})
	}
	a := s.Ahead(studentplan.Horizon{Model: forecast.Fit(nil, forecast.DefaultPrior())}, placed, studentplan.Options{})
	offer := Used{Factors: map[string]float64{"ties": 1.5, "pulse": 2}}
	moves := offer.Moves([]studentplan.StudentOutlook{a}, Used{})
	require.Len(t, moves, 2, "the Gull is not next")
	require.Equal(t, []string{"fog", "tide"}, []string{moves[0].Material, moves[1].Material})
	require.InDelta(t, 0.5, moves[0].After-moves[0].Before, 1e-9, "as it was when it was begun: new")
	require.InDelta(t, 0.5*1.6*leap.DefaultPolicy().Novelty(leap.Evidence{Working: 1}), moves[1].After-moves[1].Before, 1e-9)
	require.Empty(t, Used{Factors: map[string]float64{"ties": 1.01}}.Moves([]studentplan.StudentOutlook{a}, Used{}), "too little to tell")
	over := offer.Over(lib)
	b := pupil(
		t,
		over,
		[]studentlog.Entry{entry("e1", 2, studentlog.Assigned, "fog", 0)},
	).Ahead(studentplan.Horizon{Model: forecast.Fit(nil, forecast.DefaultPrior())}, placed, studentplan.Options{})
	require.Empty(t, offer.Moves([]studentplan.StudentOutlook{b}, offer), "it is used already")
	require.InDelta(t, moves[0].After, b.View.Rails[0].Rungs[0].Leap.Size, 1e-9, "what was announced is what comes")
}

// A memory that holds longer leaves fewer pieces fading.
func TestFadingUnderAnotherMemory(t *testing.T) {
	at := func(daysAgo int) Heard {
		return Heard{At: monday.AddDate(0, 0, -daysAgo), On: civil.On(monday) - civil.Day(daysAgo), Rating: memory.Solid}
	}
	p := memory.DefaultParams()
	h := [][]Heard{{at(1)}, {at(6)}, {at(40)}, {}}
	fading, of := Fading(h, p, monday)
	require.Equal(t, []int{1, 3}, []int{fading, of})
	fading, _ = Fading(h, p.Scaled(8), monday)
	require.Equal(t, 0, fading)
	fading, _ = Fading(h, p.Scaled(0.5), monday)
	require.Equal(t, 2, fading)
}
