package app

import (
	"fmt"
	"testing"

	"github.com/stretchr/testify/require"

	"patientladder/app/open"
	"patientladder/app/refusal"
	"patientladder/core/library/material"
	"patientladder/core/planning/admission"
	"patientladder/core/planning/plantest"
	"patientladder/core/planning/studentplan"
	"patientladder/core/planning/week"
	"patientladder/core/planning/withfamily"
	"patientladder/core/student/studentlog"
)

// A text that is there keeps its id, whatever its place; the same words twice are two points; spaces are not meant.
func TestFocusPointsKeepTheirMarks(t *testing.T) {
	n := 0
	id := func() string { n++; return fmt.Sprint("new", n) }
	m := material.Material{FocusPoints: []material.FocusPoint{{ID: "a", Text: "pulse"}, {ID: "b", Text: "loose wrist"}}}
	require.Equal(t, []material.FocusPoint{
		{ID: "b", Text: "loose wrist"}, {ID: "new1", Text: "breath"}, {ID: "a", Text: "pulse"}, {ID: "new2", Text: "pulse"},
	}, PointsOf(m, []string{" loose wrist ", "breath", "pulse", "pulse"}, id))
	require.Equal(t, []material.FocusPoint{}, PointsOf(m, nil, id))
}

// What a family tells becomes entries and notes in their order; what cannot be is refused with its sentence, and nothing is taken.
func TestWhatAFamilyTells(t *testing.T) {
	s := plantest.Pupil(t, plantest.Piece("fog", material.Method), plantest.Piece("net", material.Method))
	plantest.Learned(s, "fog", 20, 9)
	plantest.Working(s, "net", 8)
	opened := open.Student{Student: *s}
	day := plantest.Monday.AddDate(0, 0, -1)
	weeks := []studentplan.SetWeek{{Start: day, Plan: week.Plan{Days: []week.Day{{Date: day, Items: []week.Item{
		{Key: "whole net", Kind: week.Whole, Material: "net", Times: 2},
	}}}}}}
	done := admission.Report{ID: "1", At: plantest.On(1), Day: day, Item: "whole net", Times: 2, Felt: studentlog.Fine}
	also := &withfamily.Note{ID: "2", Kind: withfamily.AlsoPlayed, Text: "The fog", At: plantest.On(1)}
	asks := &withfamily.Note{ID: "3", Kind: withfamily.Question, Text: "How fast?", At: plantest.On(1)}
	entries, notes, err := told(opened, weeks, []Told{{Done: done}, {Note: also}, {Note: asks}})
	require.NoError(t, err)
	require.Equal(t, []studentlog.Kind{studentlog.Practised, studentlog.Liking}, []studentlog.Kind{entries[0].Kind, entries[1].Kind})
	require.Equal(t, []string{"whole net", "fog"}, []string{entries[0].Item, entries[1].Material})
	require.Equal(t, []string{"The fog", "How fast?"}, []string{notes[0].Text, notes[1].Text})

	other := done
	other.Item = "chunk of something else"
	_, _, err = told(opened, weeks, []Told{{Note: asks}, {Done: other}})
	require.ErrorAs(t, err, &admission.EntryError{})
	var refused *refusal.Refusal
	require.ErrorAs(t, notAdmitted(opened, err), &refused)
	require.Equal(t, refusal.Mistake, refused.Kind)
	unknown := admission.EntryError{Kind: admission.NoSuchMaterial}
	require.Equal(t, refusal.NoMaterial, notAdmitted(opened, unknown))
	require.Equal(t, fmt.Errorf("a disk"), notAdmitted(opened, fmt.Errorf("a disk")), "what is no refusal stays as it is")
}
