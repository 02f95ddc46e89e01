package store_test

import (
	"reflect"
	"slices"
	"testing"
	"time"

	"github.com/stretchr/testify/require"

	"patientladder/core/base/calendar"
	"patientladder/core/library/dimension"
	"patientladder/core/library/material"
	"patientladder/core/planning/ladder"
	"patientladder/core/planning/week"
	"patientladder/core/student/consent"
	"patientladder/core/student/studentlog"
	"patientladder/store"
)

// complete fails for a field of a record that the test left empty: one that is new has to be named here, and then has to come
// back. But names fields that the table gives or other calls set.
func complete(t *testing.T, record any, but ...string) {
	t.Helper()
	v := reflect.ValueOf(record)
	for i := range v.NumField() {
		if f := v.Type().Field(i); f.IsExported() && !slices.Contains(but, f.Name) {
			require.False(t, v.Field(i).IsZero(), "%s.%s is not filled here", v.Type(), f.Name)
		}
	}
}

// Whatever is in a record comes back from its tables, field by field, when it is added and when it is changed.
func TestEveryFieldOfARecordComesBack(t *testing.T) {
	st, mine, m := studio(t, db)
	t.Run("a person", func(t *testing.T) {
		p := store.Person{
			ID: id(), Name: "Zoë Farrow", Called: "Zo", Born: date("2015-06-01"), BornAbout: true, Notes: "likes ferries", Since: date("2024-09-01"),
			Contacts: []store.Contact{{ID: id(), Name: "A", Relation: "mother", Email: "a@harbour.example", Messages: true, Named: consent.Yes}},
		}
		complete(t, p, "Left", "Pauses", "Version")
		complete(t, p.Contacts[0])
		l := store.Ladder{
			ID:              id(),
			StudentID:       p.ID,
			Name:            p.Name,
			Instrument:      "cello",
			PracticeMinutes: 20,
			Lessons:         calendar.Weekly(time.Friday, 900, 45, date("2026-01-01")),
		}
		require.NoError(t, db.AddPerson(ctx, st, p, l))
		pause := store.Pause{ID: id(), First: date("2026-05-01"), Last: date("2026-05-20")}
		complete(t, pause)
		require.NoError(t, db.SetPause(ctx, st, p.ID, pause))
		require.NoError(t, db.SetLeft(ctx, st, p.ID, date("2026-07-01"), nil))
		p.Pauses, p.Left, p.Version = []store.Pause{pause}, date("2026-07-01"), 1
		got, err := db.Person(ctx, st, p.ID)
		require.NoError(t, err)
		p.Version = got.Version
		complete(t, got)
		require.Equal(t, p, got)

		p.Name, p.Called, p.Born, p.BornAbout, p.Notes, p.Since = "Zoë F", "Z", date("2015-07-01"), false, "likes trains", date("2024-10-01")
		p.Contacts = []store.Contact{{ID: id(), Name: "B", Relation: "uncle", Email: "b@harbour.example", Messages: true, Named: consent.No}}
		require.NoError(t, db.SetPerson(ctx, st, p))
		p.Version++
		got, err = db.Person(ctx, st, p.ID)
		require.NoError(t, err)
		require.Equal(t, p, got)
	})
	t.Run("a piece", func(t *testing.T) {
		source := store.Source{ID: id(), Title: "Harbour Steps", Instrument: "piano"}
		require.NoError(t, db.Import(ctx, st, nil, []store.Source{source}, nil))
		whole := m
		whole.ID, whole.Exercise, whole.FocusPoints = id(), "", nil
		_, err := db.AddMaterial(ctx, st, whole, nil)
		require.NoError(t, err)
		x := material.Material{
			ID: id(), Title: "Net Song", Composer: "Anon", Strand: material.Method, Instrument: "piano", SourceID: source.ID, Source: source.Title,
			Unit: "12", Page: 30, Order: 4,
			Tempo: 92, Bars: 9, DistinctBars: 5, BarLabels: []string{"0", "1"}, Quarters: 36, Texture: material.InTurn, Notes: []string{"C4", "F#3"},
			Music: "aab", Rules: 3,
			Demands:     []material.Demand{{Skill: "rests", Weight: 0.5, Bars: []int{1, 3}, Origin: "score"}},
			FocusPoints: []material.FocusPoint{{ID: id(), Text: "steady"}},
			Loads:       []material.Load{{Dimension: dimension.Speed, Value: 3.5, Bars: []int{2, 3}}},
			HasScore:    true, Tags: []string{"quiet"}, Exercise: "scale/apart/Db/major/-", PartOf: whole.ID, Retired: true,
		}
		complete(t, x)
		_, err = db.AddMaterial(ctx, st, x, &store.ScoreFile{Name: "net.abc", Data: []byte("x")})
		require.NoError(t, err)
		require.NoError(t, db.PlaceRungs(ctx, st, mine.ID, []ladder.Placed{{Material: x.ID, Strand: x.Strand}}))
		_, err = db.Append(ctx, st, mine.ID, []studentlog.Entry{{ID: id(), At: now, Kind: studentlog.Assigned, Material: x.ID}})
		require.NoError(t, err)
		removed, err := db.RemoveMaterial(ctx, st, x.ID)
		require.NoError(t, err)
		require.False(t, removed, "it is retired")
		lib, err := db.Library(ctx, st)
		require.NoError(t, err)
		require.Equal(t, x, lib[x.ID])
	})
	t.Run("a week", func(t *testing.T) {
		w := store.PracticeWeek{Ladder: mine.ID, Start: date("2026-05-04"), Hand: week.Hand{Words: "slowly"}}
		require.NoError(t, db.SavePracticeWeek(ctx, st, w, nil))
		got, err := db.PracticeWeek(ctx, st, mine.ID, w.Start)
		require.NoError(t, err)
		require.Equal(t, "slowly", got.Hand.Words)
	})
}
