package standing

import (
	"bytes"
	"encoding/json"
	"flag"
	"go/ast"
	"go/parser"
	"go/token"
	"maps"
	"os"
	"path/filepath"
	"slices"
	"strconv"
	"testing"

	"github.com/stretchr/testify/require"

	"patientladder/core/library/material"
	"patientladder/core/student/setup"
	"patientladder/core/student/studentlog"
)

var update = flag.Bool("update", false, "write testdata/every-kind.json anew; raise FoldVersion first when the fold changed")

const goldenFile = "testdata/every-kind.json"

// golden is a log with every kind of entry and what it folds to. The page replays the
// entries of the last lesson offline and is held to the same file (web/src/lesson/pending.test.ts).
type golden struct {
	FoldVersion int `json:"foldVersion"`
	// Points are the focus points of each piece, Standard the points a run is held against.
	Points   map[string][]material.FocusPoint `json:"points"`
	Standard []string                         `json:"standard"`
	Entries  []studentlog.Entry               `json:"entries"`
	// Lesson is the number of entries before the last lesson, Before and After what they and all of them fold to.
	Lesson int       `json:"lesson"`
	Before *Standing `json:"before"`
	After  *Standing `json:"after"`
}

// everyKind tells of a student of three lessons and of the days between.
func everyKind() (log []studentlog.Entry, lesson int) {
	w := (&tell{}).week(0)
	say := func(kind studentlog.Kind, e studentlog.Entry) studentlog.Entry {
		e.Kind, e.Actor = kind, "teacher"
		return w.write(e)
	}
	say(studentlog.KnownBefore, studentlog.Entry{Material: "p4"})
	say(studentlog.KnownBefore, studentlog.Entry{Skill: "ties"})
	say(studentlog.Cleared, studentlog.Entry{Material: "p1"})
	say(studentlog.Polished, studentlog.Entry{Material: "p1"})
	say(studentlog.Assigned, studentlog.Entry{Material: "p2"})
	say(studentlog.Assigned, studentlog.Entry{Material: "p3"})
	say(studentlog.MarkGiven, studentlog.Entry{Material: "p2", Focus: "a", Mark: studentlog.Full})
	spot := say(studentlog.SpotAdded, studentlog.Entry{Material: "p2", From: 3, To: 4})
	say(
		studentlog.SetupChecked,
		studentlog.Entry{Setup: &setup.Measures{KeyTop: 73, Elbow: 18, Leg: 34, BenchLow: 46, BenchHigh: 55, Lean: "level"}},
	)
	say(
		studentlog.CycleKept,
		studentlog.Entry{
			Cycle: &studentlog.Cycle{Type: "scale", Step: "one-octave", Kind: "major", First: "C", Order: "fifths", From: "2026-03-02"},
		},
	)
	say(studentlog.ClimbBegun, studentlog.Entry{Material: "p3", Climb: &studentlog.Climb{From: 60, To: 96, Weeks: 5}})
	say(studentlog.Probe, studentlog.Entry{Skill: "rests", Shown: true})
	say(studentlog.Probe, studentlog.Entry{Skill: "ties", Outcome: "nearly"})
	say(studentlog.Probe, studentlog.Entry{Skill: "pickup", Outcome: "no"})
	say(studentlog.Meeting, studentlog.Entry{Goal: "echo-pitch", Outcome: "octave", Step: 2, Text: "sang it low"})
	w.week(1)
	w.write(
		studentlog.Entry{
			Kind:     studentlog.Practised,
			Actor:    studentlog.Family,
			Material: "p2",
			Day:      "2026-03-08",
			Item:     "p2:chunk:1",
			Times:    3,
			Felt:     studentlog.Fine,
		},
	)
	say(studentlog.Liking, studentlog.Entry{Material: "p2", Sign: studentlog.Unasked})
	say(studentlog.TempoPlayed, studentlog.Entry{Material: "p3", Tempo: 66, Held: true})
	say(studentlog.TakeMeasured, studentlog.Entry{Material: "p2"})
	say(studentlog.Activity, studentlog.Entry{Goal: "rhythm", Step: 2})
	say(studentlog.LessonMissed, studentlog.Entry{Day: "2026-03-16"})
	say(studentlog.FaultSeen, studentlog.Entry{Focus: "fault.too-close"})
	say(studentlog.FaultSeen, studentlog.Entry{Focus: "fault.slumped"})
	say(studentlog.FaultGone, studentlog.Entry{Focus: "fault.slumped"})
	say(studentlog.Paused, studentlog.Entry{Material: "p3"})
	w.week(3)
	say(studentlog.Resumed, studentlog.Entry{Material: "p3"})
	lesson = len(w.log)
	own := say(studentlog.FocusAdded, studentlog.Entry{Focus: "own", Text: "heavy elbows"})
	say(studentlog.MarkGiven, studentlog.Entry{Material: "p2", Focus: own.Focus, Mark: studentlog.Full})
	say(studentlog.MarkGiven, studentlog.Entry{Material: "p2", Focus: "b", Mark: studentlog.Part})
	say(studentlog.MarkGiven, studentlog.Entry{Material: "p2", Focus: "b", Mark: studentlog.Full})
	say(studentlog.SpotMended, studentlog.Entry{Material: "p2", Spot: spot.ID})
	say(studentlog.SpotAdded, studentlog.Entry{Material: "p3", From: 5, To: 5})
	say(studentlog.RunTried, studentlog.Entry{Material: "p3", Met: []string{"notes", "tone"}})
	say(studentlog.RunTried, studentlog.Entry{Material: "p2", Met: all})
	say(studentlog.Hearing, studentlog.Entry{Material: "p1", Rating: 3})
	say(studentlog.StepDone, studentlog.Entry{Skill: "ties", Step: 1, Text: "tie two fingers"})
	say(studentlog.GateSet, studentlog.Entry{Material: "p3", Gate: studentlog.RightOnly})
	say(studentlog.WentWell, studentlog.Entry{Text: "the ending"})
	wrong := say(studentlog.MarkGiven, studentlog.Entry{Material: "p3", Focus: "a", Mark: studentlog.Full})
	say(studentlog.Correction, studentlog.Entry{Corrects: wrong.ID})
	say(studentlog.Note, studentlog.Entry{Text: "tired today"})
	say(studentlog.Bring, studentlog.Entry{Text: "the blue book"})
	return w.log, lesson
}

// No standing that was kept may be read after the fold changed: whoever changes what a log folds to
// raises FoldVersion.
func TestTheFoldOfEveryKindOfEntry(t *testing.T) {
	log, lesson := everyKind()
	for _, e := range log {
		require.NoError(t, e.Validate())
	}
	require.ElementsMatch(t, kindsInSource(t), kindsOf(log), "every kind of entry is in the log")
	require.Len(t, studentlog.Kinds(), len(kindsInSource(t)), "every kind is checked by itself")
	require.ElementsMatch(t, studentlog.Kinds(), slices.Collect(maps.Keys(applied)), "every kind says what it does to a standing")
	ctx := context(t)
	now := golden{FoldVersion: FoldVersion, Points: map[string][]material.FocusPoint{}, Standard: all, Entries: log, Lesson: lesson,
		Before: Fold(log[:lesson], ctx), After: Fold(log, ctx)}
	for id, m := range ctx.Library {
		now.Points[id] = m.FocusPoints
	}
	data, err := json.MarshalIndent(now, "", " ")
	require.NoError(t, err)
	data = append(data, '\n')
	kept, err := os.ReadFile(goldenFile)
	if err == nil {
		var was golden
		require.NoError(t, json.Unmarshal(kept, &was))
		if was.FoldVersion == FoldVersion && !bytes.Equal(kept, data) {
			require.Equal(t, string(kept), string(data), "a log folds to something else now: raise FoldVersion, then run this test with -update")
		}
	}
	if *update {
		require.NoError(t, os.MkdirAll("testdata", 0o755))
		require.NoError(t, os.WriteFile(goldenFile, data, 0o644))
		return
	}
	require.NoError(t, err)
	require.Equal(t, string(kept), string(data), "FoldVersion was raised: run this test with -update")
}

func kindsOf(log []studentlog.Entry) (kinds []string) {
	seen := map[studentlog.Kind]bool{}
	for _, e := range log {
		if !seen[e.Kind] {
			kinds = append(kinds, string(e.Kind))
		}
		seen[e.Kind] = true
	}
	return kinds
}

// kindsInSource reads the constants of type Kind, so that a new one cannot be forgotten here.
func kindsInSource(t *testing.T) (kinds []string) {
	file, err := parser.ParseFile(token.NewFileSet(), filepath.Join("..", "studentlog", "entry.go"), nil, 0)
	require.NoError(t, err)
	ast.Inspect(file, func(n ast.Node) bool {
		v, ok := n.(*ast.ValueSpec)
		if !ok {
			return true
		}
		if name, ok := v.Type.(*ast.Ident); ok && name.Name == "Kind" {
			kind, err := strconv.Unquote(v.Values[0].(*ast.BasicLit).Value)
			require.NoError(t, err)
			kinds = append(kinds, kind)
		}
		return true
	})
	return kinds
}
