// Package open is what all handlers share: it opens, for the studio of whoever is signed in, its library,
// a student, what lies ahead of a student, and a score as it is read.
//
//	open.go     who is signed in, the studio
//	student.go  a student with the standing, folded or kept
//	ahead.go    what lies ahead of a student, and what the forecasts learn
//	agenda.go   the students as the calendar knows them
//	week.go     the week that is practised now
//	brief.go    what the pages of all students need
//	score.go    scores as they are read
//	key.go      under what things are kept: one type of key, with the studio in it
//	keep.go     what is kept in memory for a while
package open

import (
	"context"
	"fmt"
	"slices"

	"patientladder/account"
	"patientladder/app/refusal"
	"patientladder/clock"
	"patientladder/core/base/civil"
	"patientladder/core/library/instrument"
	"patientladder/core/library/material"
	"patientladder/core/library/skill"
	"patientladder/core/planning/curriculum"
	"patientladder/core/planning/lessonplan"
	"patientladder/core/planning/meeting"
	"patientladder/core/planning/studentplan"
	"patientladder/core/reading/demand"
	"patientladder/core/reading/naming"
	"patientladder/core/technique/bowed"
	"patientladder/core/technique/exercise"
	"patientladder/core/wording"
	"patientladder/store"
)

// Loader opens things. Make it with New.
type Loader struct {
	Store *store.Store
	// Now is the clock.
	Now clock.Clock
	// Shipped are the skills that ship, Demands the table of what features ask for.
	Shipped skill.Catalogue
	Demands demand.Table
	// URL is the address of the page as families reach it, without a slash at its end.
	URL string
	// Mails says that a mail server takes the messages.
	Mails bool
	// Letters says that letters about accounts are taken.
	Letters bool

	// catalogue names the skills that ship, the instruments, exercises and bow plans, program the program itself, for the keys of what is kept.
	catalogue, program string
	kept               *memory
}

// New returns a desk.
func New(st *store.Store, now clock.Clock, url string, mails bool) (*Loader, error) {
	skills, demands, err := demand.Shipped()
	if err != nil {
		return nil, err
	}
	kept, err := newMemory()
	if err != nil {
		return nil, err
	}
	program, err := programPrint()
	return &Loader{
		Store:     st,
		Now:       now,
		Shipped:   skills,
		Demands:   demands,
		URL:       url,
		Mails:     mails,
		catalogue: digest(skills.All(), instrument.All(), exercise.Forms(nil).All(), bowed.Plans()),
		program:   program,
		kept:      kept,
	}, err
}

// Who is the signed-in teacher of a request, or a family, which has no role.
type Who struct {
	Teacher, Studio string
	Role            account.Role
}

type whoKey struct{}

// As returns a context in which somebody is signed in.
func As(ctx context.Context, w Who) context.Context { return context.WithValue(ctx, whoKey{}, w) }

// Actor returns who is signed in.
func Actor(ctx context.Context) Who {
	w, _ := ctx.Value(whoKey{}).(Who)
	return w
}

// Studio is a studio with its library and its day.
type Studio struct {
	studentplan.Studio
	Tenant store.Studio
	// aliases are materials in whose place another stands.
	aliases map[string]string
	// table has the materials with the weights of the table, whatever the studio uses of what it has learned.
	table material.Library
}

// AsKept is the library as it is kept: with the weights of the table. What is written or sent elsewhere comes from it.
func (s Studio) AsKept() material.Library { return s.table }

// Meant is the material that an id means: the one that stands in its place, if any.
func (s Studio) Meant(id string) string {
	if into, merged := s.aliases[id]; merged {
		return into
	}
	return id
}

// Studio opens the studio of whoever is signed in.
func (d *Loader) Studio(ctx context.Context) (Studio, error) {
	s, err := d.Day(ctx)
	if err != nil {
		return s, err
	}
	lib, err := d.library(ctx, s.Tenant)
	if err != nil {
		return s, err
	}
	s.Library, s.Skills, s.Units, s.Exercises, s.aliases = lib.materials, lib.skills, lib.units, lib.exercises, lib.aliases
	s.table, s.RetentionScale = lib.table, lib.used.Scale
	if s.Words.Values == naming.QuarterNotes {
		s.Skills = s.Skills.Renamed(s.Words.Text)
	}
	return s, nil
}

// Day opens the studio without its library.
func (d *Loader) Day(ctx context.Context) (Studio, error) {
	tenant, err := d.Store.Studio(ctx, Actor(ctx).Studio)
	if err != nil {
		return Studio{}, err
	}
	s := Studio{Tenant: tenant}
	s.Words, s.Now, s.Zone = tenant.Words, d.Now(), civil.Zone(tenant.Timezone)
	s.Today = s.Local(s.Now)
	own, err := d.Store.Activities(ctx, tenant.ID)
	if err != nil {
		return s, err
	}
	s.Pool = lessonplan.Shipped().Over(own)
	meetings, err := d.Store.MeetingActivities(ctx, tenant.ID)
	if err != nil {
		return s, err
	}
	s.Meetings = meeting.Shipped().Over(meetings)
	s.Holidays, err = d.Store.Holidays(ctx, tenant.ID)
	return s, err
}

// Material opens the studio at one material.
func (d *Loader) Material(ctx context.Context, id string) (Studio, material.Material, error) {
	s, err := d.Studio(ctx)
	if err != nil {
		return s, material.Material{}, err
	}
	m, ok := s.Library[id]
	if !ok {
		return s, m, refusal.NoMaterial
	}
	return s, m, nil
}

// Names are what sentences about this studio need.
func (s Studio) Names() wording.Names {
	return wording.Names{Library: s.Library, Skills: s.Skills, Words: s.Words, Pool: s.Pool, Meetings: s.Meetings}
}

// Taught is the name of an instrument as it is kept; any can be taught. One that is a letter off a known one is asked about,
// unless somebody is sure.
func Taught(name string, sure bool) (string, error) {
	kept, ok := instrument.Named(name)
	if !ok {
		return kept, refusal.Invalid(fmt.Sprintf("%q cannot be the name of an instrument. Use letters, as in “double bass”.", name))
	}
	if known, slip := instrument.Meant(kept); slip && !sure {
		return kept, refusal.Invalid(fmt.Sprintf("Do you mean the %s? If “%s” is right, press the button once more.", known, kept))
	}
	return kept, nil
}

// Instrument returns an instrument that has data of its own, by name; one that is not known is the user's mistake.
func Instrument(name string) (instrument.Instrument, error) {
	x, ok := instrument.Of(name)
	if ok {
		return x, nil
	}
	var known []string
	for _, x := range instrument.All() {
		known = append(known, x.ID)
	}
	return x, refusal.Invalid(fmt.Sprintf("There is no instrument %q here; there are %s.", name, wording.List(known)))
}

// Books are those of a studio that are offered, called so that they can be told apart.
func (d *Loader) Books(ctx context.Context, studio string) ([]curriculum.Source, error) {
	list, err := d.Store.Sources(ctx, studio)
	out := make([]curriculum.Source, len(list))
	for i, b := range list {
		out[i] = curriculum.Source{ID: b.ID, Title: b.Title, Instrument: b.Instrument, Requires: b.Requires, Retired: b.Retired}
	}
	return slices.DeleteFunc(curriculum.ToldApart(out), func(b curriculum.Source) bool { return b.Retired }), err
}
