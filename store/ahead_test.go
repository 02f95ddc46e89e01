package store_test

import (
	"testing"
	"time"

	"github.com/stretchr/testify/require"

	"patientladder/core/base/calendar"
	"patientladder/core/library/material"
	"patientladder/core/planning/ladder"
	"patientladder/core/planning/whatif"
	"patientladder/core/reading/naming"
	"patientladder/core/way"
	"patientladder/store"
)

func TestAWayOfTeachingIsKeptWhole(t *testing.T) {
	st, l, _ := studio(t, db)
	got, err := db.Studio(ctx, st)
	require.NoError(t, err)
	require.Equal(t, way.Default(), got.Way)

	w := way.Presets()[0].Way
	w.ReviewShare, w.Bites, w.EaseAfterLeap, w.Approach = 0, 0, false, naming.ByName // zeros stay zeros
	require.NoError(t, db.SetWay(ctx, st, w, got.WayVersion))
	require.ErrorIs(t, db.SetWay(ctx, st, way.Default(), got.WayVersion), store.ErrConflict)
	got, err = db.Studio(ctx, st)
	require.NoError(t, err)
	require.Equal(t, w, got.Way)
	require.Equal(t, naming.ByName, got.Approach)

	require.NoError(t, db.SetLadderWay(ctx, st, l.ID, []byte(`{"bites":3}`), naming.ByPosition))
	back, err := db.Ladder(ctx, st, l.ID)
	require.NoError(t, err)
	require.JSONEq(t, `{"bites":3}`, string(back.Own))
	require.Equal(t, naming.ByPosition, back.Approach)
}

func TestRungsAreArranged(t *testing.T) {
	st, l, m := studio(t, db)
	other := m
	other.ID, other.FocusPoints = id(), nil
	_, err := db.AddMaterial(ctx, st, other, nil)
	require.NoError(t, err)
	first := []ladder.Placed{{Material: m.ID, Strand: material.Method}, {Material: other.ID, Strand: material.Method}}
	require.NoError(t, db.PlaceRungs(ctx, st, l.ID, first))
	read, err := db.Ladder(ctx, st, l.ID)
	require.NoError(t, err)

	turned := []ladder.Placed{
		{Material: other.ID, Strand: material.Method, Aside: ladder.Paused},
		{Material: m.ID, Strand: material.Repertoire},
	}
	require.NoError(t, db.Arrange(ctx, st, l.ID, read.RungsVersion, turned))
	require.ErrorIs(t, db.Arrange(ctx, st, l.ID, read.RungsVersion, first), store.ErrConflict, "made from an older order")
	got, err := db.Rungs(ctx, st, l.ID)
	require.NoError(t, err)
	require.Equal(t, turned, got)
	all, err := db.AllRungs(ctx, st)
	require.NoError(t, err)
	require.Equal(t, map[string][]ladder.Placed{l.ID: turned}, all)

	read, err = db.Ladder(ctx, st, l.ID)
	require.NoError(t, err)
	require.ErrorIs(
		t,
		db.Arrange(ctx, st, l.ID, read.RungsVersion, []ladder.Placed{{Material: id(), Strand: material.Method}}),
		store.ErrNotFound,
	)
	got, err = db.Rungs(ctx, st, l.ID)
	require.NoError(t, err)
	require.Equal(t, turned, got, "nothing was changed")
}

func TestHolidaysAndTargets(t *testing.T) {
	st, l, m := studio(t, db)
	on := func(d int) time.Time { return time.Date(2026, 12, d, 0, 0, 0, 0, time.UTC) }
	h := calendar.Holiday{ID: id(), Name: "Winter", First: on(21), Last: on(31)}
	require.NoError(t, db.SetHoliday(ctx, st, h))
	h.Last = on(30)
	require.NoError(t, db.SetHoliday(ctx, st, h))
	list, err := db.Holidays(ctx, st)
	require.NoError(t, err)
	require.Equal(t, []calendar.Holiday{h}, list)
	require.NoError(t, db.RemoveHoliday(ctx, st, h.ID))
	require.ErrorIs(t, db.RemoveHoliday(ctx, st, h.ID), store.ErrNotFound)

	target := whatif.Target{ID: id(), Name: "Recital", Day: on(12), Material: m.ID}
	require.NoError(t, db.SetTarget(ctx, st, l.ID, target))
	target.Day = on(13)
	require.NoError(t, db.SetTarget(ctx, st, l.ID, target))
	targets, err := db.Targets(ctx, st, l.ID)
	require.NoError(t, err)
	require.Equal(t, []whatif.Target{target}, targets)

	elsewhere, _, _ := studio(t, db)
	require.ErrorIs(
		t,
		db.SetTarget(ctx, elsewhere, l.ID, whatif.Target{ID: id(), Material: m.ID, Day: on(1)}),
		store.ErrNotFound,
		"another studio's ladder",
	)
	require.ErrorIs(t, db.RemoveTarget(ctx, elsewhere, l.ID, target.ID), store.ErrNotFound)
	require.NoError(t, db.RemoveTarget(ctx, st, l.ID, target.ID))
}
