package progress_test

import (
	"testing"
	"time"

	"github.com/stretchr/testify/require"

	"patientladder/core/library/material"
	"patientladder/core/planning/progress"
)

// Pieces are drawn from their beginning to their clearing, strand beside strand, two at a time beside each other; what is open
// reaches the end; what began before the span begins with it.
func TestPiecesAreDrawnAgainstTime(t *testing.T) {
	on := func(d int) time.Time { return time.Date(2026, 3, d, 0, 0, 0, 0, time.UTC) }
	lib := material.Library{"a": {Strand: material.Method}, "b": {Strand: material.Method}, "c": {Strand: material.Repertoire}}
	p := progress.Progress{Span: progress.Span{From: on(1), To: on(11)}}
	p.Way = []progress.Piece{
		{Material: "a", From: on(1).AddDate(0, 0, -9), To: on(6), Leap: 1},
		{Material: "b", From: on(3), Leap: 7},
		{Material: "c", From: on(6), To: on(12), Leap: 2.5},
	}
	require.Equal(t, []progress.Drawn{
		{Material: "a", From: 0, To: 0.5, Lane: 0, Wide: 0.2}, {Material: "b", From: 0.2, To: 1, Lane: 1, Wide: 1, Open: true},
		{Material: "c", From: 0.5, To: 1, Lane: 2, Wide: 0.5, Open: true},
	}, p.Drawn(lib))
	require.Equal(t, 1.0, progress.Span{From: on(1), To: on(1)}.Share(on(2)), "of one day")
	require.Equal(
		t,
		[]time.Time{on(1), on(1).AddDate(0, 1, 0)},
		progress.Span{From: on(1).AddDate(0, 0, -1), To: on(1).AddDate(0, 1, 0)}.Months(),
	)
	require.Empty(t, progress.Span{From: on(1), To: on(31)}.Months(), "the month that began before")
}
