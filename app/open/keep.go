package open

import (
	"context"
	"crypto/sha256"
	"encoding/hex"
	"errors"
	"io"
	"os"
	"slices"
	"sync"

	"patientladder/core/base/parallel"
	"patientladder/core/library/material"
	"patientladder/core/library/skill"
	"patientladder/core/planning/forecast"
	"patientladder/core/planning/learning"
	"patientladder/core/planning/studentplan"
	"patientladder/core/student/standing"
	"patientladder/core/student/studentlog"
	"patientladder/core/technique/drill"
	"patientladder/core/technique/exercise"
	"patientladder/store"
)

// How much is kept in memory. What is kept is found by a key that names everything it came from,
// so that it can be thrown away at any time and is never out of date.
const (
	// keptLibraries are libraries of studios, of some hundred kilobytes each.
	keptLibraries = 64
	// keptScores are scores as they are read, of some ten kilobytes each; one with more notes than
	// longestKept is read anew each time.
	keptScores  = 512
	longestKept = 4000
	// keptModels are the forecasts of studios.
	keptModels = 256
	// keptStandings are standings of students, of some hundred kilobytes each after three years.
	keptStandings = 256
	// keptLogs are logs of students, of some hundred kilobytes each after three years.
	keptLogs = 64
	// keptOutlooks are outlooks of students, of some hundred kilobytes each on a long ladder.
	keptOutlooks = 64
	// keptPolicies are ways of teaching.
	keptPolicies = 1024
)

type memory struct {
	libraries shelf[library]
	scores    shelf[*Score]
	models    shelf[*forecast.Model]
	standings shelf[*standing.Standing]
	logs      shelf[readLog]
	outlooks  shelf[studentplan.StudentOutlook]
	policies  shelf[string]
}

// readLog is a log as far as it was read.
type readLog struct {
	entries []studentlog.Entry
	last    int64
}

type library struct {
	materials material.Library
	skills    skill.Catalogue
	// aliases are materials in whose place another stands, units those that are split into sections.
	aliases map[string]string
	units   map[string]bool
	// exercises are the studio's own goals and faults; the materials have them.
	exercises exercise.Forms
	// used is what the studio uses of what it has learned; the materials have its weights.
	used learning.Used
	// table are the materials with the weights of the table.
	table material.Library
}

func newMemory() (*memory, error) {
	m := &memory{}
	var errs [7]error
	m.libraries, errs[0] = newShelf[library](keptLibraries)
	m.scores, errs[1] = newShelf[*Score](keptScores)
	m.models, errs[2] = newShelf[*forecast.Model](keptModels)
	m.standings, errs[3] = newShelf[*standing.Standing](keptStandings)
	m.logs, errs[4] = newShelf[readLog](keptLogs)
	m.policies, errs[5] = newShelf[string](keptPolicies)
	m.outlooks, errs[6] = newShelf[studentplan.StudentOutlook](keptOutlooks)
	return m, errors.Join(errs[:]...)
}

// each does something for each of n, side by side but in a transaction, which has one connection.
func each(ctx context.Context, n int, do func(i int)) {
	if !store.Within(ctx) {
		parallel.Each(n, do)
		return
	}
	for i := range n {
		do(i)
	}
}

// programPrint names the program that runs, so that nothing is used that another one computed.
var programPrint = sync.OnceValues(func() (string, error) {
	path, err := os.Executable()
	if err != nil {
		return "", err
	}
	f, err := os.Open(path)
	if err != nil {
		return "", err
	}
	defer f.Close()
	sum := sha256.New()
	if _, err := io.Copy(sum, f); err != nil {
		return "", err
	}
	return hex.EncodeToString(sum.Sum(nil)), nil
})

// policyKey names the way of teaching of a student with all that planning makes of it.
func (s Student) policyKey() string {
	k := keyOf(s.Tenant.ID, keptPolicy, s.Way)
	if policy, ok := s.desk.kept.policies.Get(k); ok {
		return policy
	}
	policy := digest(s.Way.Planning())
	s.desk.kept.policies.Add(context.Background(), k, policy) // it comes from the way alone
	return policy
}

// Log opens the log of a student in the order of arrival. It is shared: nobody writes to it.
func (d *Loader) Log(ctx context.Context, s Student) ([]studentlog.Entry, error) {
	key := keyOf(s.Tenant.ID, keptLog, s.Ladder)
	kept, _ := d.kept.logs.Get(key)
	if int64(len(kept.entries)) >= s.Row.Entries {
		return studentlog.Renamed(
			kept.entries[:s.Row.Entries],
			s.aliases,
		), nil // what arrived since the student was opened is for the next who asks
	}
	more, last, err := d.Store.LogAfter(ctx, s.Tenant.ID, s.Ladder, kept.last)
	if err != nil {
		return nil, err
	}
	kept = readLog{append(slices.Clip(kept.entries), more...), last}
	d.kept.logs.Add(ctx, key, kept)
	return studentlog.Renamed(kept.entries[:min(int64(len(kept.entries)), s.Row.Entries)], s.aliases), nil
}

// library returns the materials and skills of a studio. They are shared: nobody writes to them.
func (d *Loader) library(ctx context.Context, tenant store.Studio) (library, error) {
	key := keyOf(tenant.ID, keptLibrary, tenant.LibraryVersion)
	if kept, ok := d.kept.libraries.Get(key); ok {
		return kept, nil
	}
	skills, err := d.skills(ctx, tenant.ID)
	if err != nil {
		return library{}, err
	}
	lib, err := d.Store.Library(ctx, tenant.ID)
	if err != nil {
		return library{}, err
	}
	aliases, err := d.Store.Aliases(ctx, tenant.ID)
	if err != nil {
		return library{}, err
	}
	forms, err := d.Store.ExerciseForms(ctx, tenant.ID)
	if err != nil {
		return library{}, err
	}
	if len(forms) > 0 {
		for id, m := range lib {
			lib[id] = drill.WithForms(m, forms)
		}
	}
	used, err := d.Store.Learned(ctx, tenant.ID)
	if err != nil {
		return library{}, err
	}
	kept := library{used.Over(lib), skills, aliases, lib.Units(), forms, used, lib}
	d.kept.libraries.Add(ctx, key, kept)
	return kept, nil
}

// skills are those that ship with those of the studio's own.
func (d *Loader) skills(ctx context.Context, studio string) (skill.Catalogue, error) {
	own, err := d.Store.Skills(ctx, studio)
	if err != nil || len(own) == 0 {
		return d.Shipped, err
	}
	return d.Shipped.Over(own)
}
