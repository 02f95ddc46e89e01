// Package demo makes the studio that ships with the program: invented people
// in a small harbour town, our own tunes and books, and months of lessons from
// a seeded simulation.
//
//	demo.go      the studio put into a store
//	library.go   books and materials from curriculum.json and scores/
//	simulate.go  the lessons of one student
//	home.go      what families are shown, and what they report
//	dates.go     contacts, and lessons that are moved and cancelled
//	more.go      as many students as are wished
package demo

import (
	"context"
	"embed"
	"encoding/json"
	"fmt"
	"math/rand/v2"
	"time"

	"github.com/oklog/ulid/v2"

	"patientladder/core/base/calendar"
	"patientladder/core/base/civil"
	"patientladder/core/library/instrument"
	"patientladder/core/planning/ladder"
	"patientladder/core/reading/demand"
	"patientladder/core/wording"
	"patientladder/store"
)

//go:embed curriculum.json students.json scores/*.musicxml
var files embed.FS

// The demo's sign-in.
const (
	Email    = "ines@harbour.example"
	Password = "slow-and-steady"
	Teacher  = "Ines Calloway"
	Studio   = "Calloway Studio, Gullhaven"
)

// Options say what the demo is made from.
type Options struct {
	// Day is the first day: the lessons of this weekday are today's.
	Day time.Time
	// Timezone is the studio's IANA zone.
	Timezone string
	// PasswordHash of Password.
	PasswordHash string
	// Seed of the simulation; the same seed gives the same lessons.
	Seed uint64
	// Students fills the roll up to so many; 0 for those that are written down.
	Students int
	// Empty makes the studio with its teacher alone.
	Empty bool
}

// student is one line of students.json.
type student struct {
	Name       string   `json:"name"`
	Age        int      `json:"age"`
	Instrument string   `json:"instrument"`
	DayOffset  int      `json:"dayOffset"` // days after Options.Day on which the weekly lesson falls
	StartsAt   string   `json:"startsAt"`
	Minutes    int      `json:"minutes"`
	Weeks      int      `json:"weeks"` // weeks of history
	Pace       float64  `json:"pace"`  // chance of a full mark for a point in a usual lesson
	Own        []string `json:"own"`
	Probes     []string `json:"probes"` // skills shown at the first meeting
}

// Make fills an empty store with the demo studio, all of it or nothing.
func Make(ctx context.Context, st *store.Store, o Options) error {
	return st.Together(ctx, func(ctx context.Context) error { return makeIn(ctx, st, o) })
}

func makeIn(ctx context.Context, st *store.Store, o Options) error {
	skills, table, err := demand.Shipped()
	if err != nil {
		return err
	}
	ids := newIDs(o.Seed)
	studio := store.Studio{ID: ids.next(o.Day), Name: Studio, Timezone: o.Timezone, Told: wording.LastMove()}
	teacher := store.Teacher{ID: ids.next(o.Day), Email: Email, Name: Teacher, PasswordHash: o.PasswordHash}
	if err := st.AddStudio(ctx, studio, teacher); err != nil {
		return err
	}
	if o.Empty {
		return nil
	}
	lib, order, err := addLibrary(ctx, st, studio.ID, ids, o.Day, table)
	if err != nil {
		return err
	}
	var students []student
	data, err := files.ReadFile("students.json")
	if err != nil {
		return err
	}
	if err := json.Unmarshal(data, &students); err != nil {
		return fmt.Errorf("students.json: %w", err)
	}
	students = more(students, o.Students)
	var homes []func() error
	for i, s := range students {
		l, err := s.ladder(o.Day, ids)
		if err != nil {
			return err
		}
		if err := st.AddLadder(ctx, studio.ID, l); err != nil {
			return fmt.Errorf("%s: %w", s.Name, err)
		}
		var placed []ladder.Placed
		for _, id := range order {
			if m := lib[id]; m.Instrument == s.Instrument {
				placed = append(placed, ladder.Placed{Material: id, Strand: m.Strand})
			}
		}
		if err := st.PlaceRungs(ctx, studio.ID, l.ID, placed); err != nil {
			return err
		}
		sim := &simulation{
			student: s, lib: lib, placed: placed, skills: skills, teacher: teacher.ID,
			rng: rand.New(rand.NewPCG(o.Seed, uint64(i+1))), ids: ids, zone: civil.Zone(o.Timezone),
		}
		sim.family, _ = instrument.FamilyOf(s.Instrument)
		sim.run(o.Day, l)
		if err := climbStairs(ctx, st, studio.ID, l, o.Day, sim, table, o.Seed+1000+uint64(i)); err != nil {
			return fmt.Errorf("%s: %w", s.Name, err)
		}
		if _, err := st.Append(ctx, studio.ID, l.ID, sim.log); err != nil {
			return fmt.Errorf("%s: %w", s.Name, err)
		}
		homes = append(homes, func() error { return atHome(ctx, st, studio.ID, s, l, o.Day, sim, o.Seed+uint64(i)) })
	}
	for _, home := range homes {
		if err := home(); err != nil {
			return fmt.Errorf("at home: %w", err)
		}
	}
	return people(ctx, st, studio.ID, o.Day, ids)
}

func (s student) ladder(day time.Time, ids *ids) (store.Ladder, error) {
	at, err := time.Parse("15:04", s.StartsAt)
	if err != nil {
		return store.Ladder{}, fmt.Errorf("students.json: %s starts at %q: %w", s.Name, s.StartsAt, err)
	}
	l := store.Ladder{
		ID: ids.next(day), StudentID: ids.next(day), Name: s.Name, Instrument: s.Instrument,
		Born:         day.AddDate(-s.Age, -len(s.Name)%11, -len(s.Name)%27), // some day in the year before the birthday
		PracticeDays: [7]bool{true, true, true, true, true, true, true}, PracticeMinutes: 10 + min(s.Age, 15), HandsApart: true,
	}
	weekday := day.AddDate(0, 0, s.DayOffset).Weekday()
	l.Lessons = calendar.Weekly(weekday, at.Hour()*60+at.Minute(), s.Minutes, day.AddDate(0, 0, s.DayOffset-7*s.Weeks))
	l.Lessons.Slots[0].ID = l.ID
	l.PracticeDays[weekday] = false
	return l, nil
}

// ids makes ULIDs from a seed, so that the demo is the same each time.
type ids struct{ rng *rand.ChaCha8 }

func newIDs(seed uint64) *ids {
	var key [32]byte
	for i := range 8 {
		key[i] = byte(seed >> (8 * i))
	}
	return &ids{rand.NewChaCha8(key)}
}

func (g *ids) next(at time.Time) string {
	return ulid.MustNew(ulid.Timestamp(at), g.rng).String()
}
