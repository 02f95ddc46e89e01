package api

import (
	"cmp"
	"context"
	"crypto/sha256"
	"encoding/hex"
	"errors"
	"fmt"
	"slices"
	"sort"
	"strings"
	"time"

	"patientladder/core/base/parallel"
	"patientladder/core/library/instrument"
	"patientladder/core/library/material"
	"patientladder/core/library/skill"
	"patientladder/core/reading/naming"
	"patientladder/core/student/standing"
	"patientladder/core/way"
	"patientladder/store"
)

// book is what the handlers read for one studio: its library and its day.
type book struct {
	studio store.Studio
	lib    material.Library
	zone   *time.Location
	// skills is the catalogue in the studio's words.
	skills skill.Catalogue
	// now is the time, today the local day at midnight UTC.
	now, today time.Time
}

func (s *Server) book(ctx context.Context) (book, error) {
	studio, err := s.store.Studio(ctx, actor(ctx).studio)
	if err != nil {
		return book{}, err
	}
	b := book{studio: studio, now: s.now()}
	if b.skills, err = s.catalogue(ctx, studio.ID); err != nil {
		return b, err
	}
	if studio.Words.Values == naming.QuarterNotes {
		b.skills = b.skills.Renamed(studio.Words.Text)
	}
	b.zone = zoneOf(studio)
	b.today = b.day(b.now)
	b.lib, err = s.store.Library(ctx, studio.ID)
	return b, err
}

// zoneOf is the time zone of a studio; UTC where its name is not known.
func zoneOf(studio store.Studio) *time.Location {
	zone, err := time.LoadLocation(studio.Timezone)
	if err != nil {
		return time.UTC
	}
	return zone
}

// catalogue is the skills that ship with those of the studio's own.
func (s *Server) catalogue(ctx context.Context, studio string) (skill.Catalogue, error) {
	own, err := s.store.Skills(ctx, studio)
	if err != nil || len(own) == 0 {
		return s.skills, err
	}
	return s.skills.With(own)
}

// material opens the book at one material.
func (s *Server) material(ctx context.Context, id string) (book, material.Material, error) {
	b, err := s.book(ctx)
	if err != nil {
		return b, material.Material{}, err
	}
	m, ok := b.lib[id]
	if !ok {
		return b, m, errNoMaterial
	}
	return b, m, nil
}

// day returns the local day of a time, as midnight UTC of that date.
func (b book) day(t time.Time) time.Time {
	y, m, d := t.In(b.zone).Date()
	return time.Date(y, m, d, 0, 0, 0, 0, time.UTC)
}

// shelf is a book opened at one ladder.
type shelf struct {
	book
	ladder store.Ladder
	family instrument.Family
	// way is the student's: the studio's with what differs for this student.
	way      way.Way
	policy   standing.Policy
	standing *standing.Standing
}

// on puts a ladder on a shelf, without its standing.
func (b book) on(l store.Ladder) (shelf, error) {
	family, _ := instrument.FamilyOf(l.Instrument)
	w, err := b.studio.Way.With(l.Own)
	if err != nil {
		return shelf{}, fmt.Errorf("the way of ladder %s is damaged: %w", l.ID, err)
	}
	if l.Approach != "" {
		w.Approach = l.Approach
	}
	return shelf{book: b, ladder: l, family: family, way: w, policy: w.Standing()}, nil
}

// player is the instrument of the ladder; the zero one where it is not known any more.
func (sh shelf) player() instrument.Instrument {
	x, _ := instrument.Of(sh.ladder.Instrument)
	return x
}

// in returns the materials in one of the states, by strand in drawing order,
// then in the order in which they were assigned.
func (sh shelf) in(states ...standing.State) []string {
	rank := map[material.Strand]int{}
	for i, s := range material.Strands() {
		rank[s] = i
	}
	ids := sh.standing.In(states...)
	sort.SliceStable(ids, func(a, b int) bool { return rank[sh.lib[ids[a]].Strand] < rank[sh.lib[ids[b]].Strand] })
	return ids
}

// learned returns the cleared materials that are kept in review, the one most faded first.
// Of exercises those count that no later step keeps alive, and of each type only the most faded:
// scales are kept by going round, a key at a time.
func (sh shelf) learned() []string {
	over := sh.progress().Superseded(sh.player())
	ids := slices.DeleteFunc(sh.standing.In(standing.Cleared, standing.Polished), func(id string) bool { return over[sh.lib[id].Exercise] })
	sure := make(map[string]float64, len(ids))
	for _, id := range ids {
		sure[id] = sh.recall(id)
	}
	slices.SortStableFunc(ids, func(a, b string) int {
		return cmp.Or(cmp.Compare(sure[a], sure[b]), sh.standing.Materials[a].LastPlayed.Compare(sh.standing.Materials[b].LastPlayed))
	})
	// One that was heard today stays the one of its type, so that not all are asked for one after the other.
	turn := map[string]string{}
	kind := func(id string) string {
		kind, _, _ := strings.Cut(sh.lib[id].Exercise, "/")
		return kind
	}
	for _, id := range ids {
		if k := kind(id); k != "" && (turn[k] == "" || sh.day(sh.standing.Materials[id].LastPlayed).Equal(sh.today)) {
			turn[k] = id
		}
	}
	return slices.DeleteFunc(ids, func(id string) bool { return kind(id) != "" && turn[kind(id)] != id })
}

// recall is how sure a learned material still is today, 0 to 1.
func (sh shelf) recall(id string) float64 {
	return sh.standing.Materials[id].Recall(sh.today, sh.policy.Memory)
}

func (s *Server) shelf(ctx context.Context, id string) (shelf, error) {
	b, err := s.book(ctx)
	if err != nil {
		return shelf{}, err
	}
	l, err := s.store.Ladder(ctx, b.studio.ID, id)
	if err != nil {
		return shelf{}, err
	}
	return s.open(ctx, b, l)
}

func (s *Server) open(ctx context.Context, b book, l store.Ladder) (shelf, error) {
	sh, err := b.on(l)
	if err != nil {
		return sh, err
	}
	body, ok, err := s.store.Snapshot(ctx, b.studio.ID, l.ID, sh.fingerprint())
	if err != nil {
		return sh, err
	}
	if ok {
		if sh.standing, err = standing.Decode(body); err == nil {
			return sh, nil
		}
	}
	return sh, s.fold(ctx, &sh)
}

// foldVersion changes when the fold itself changes, so that old snapshots are not used.
const foldVersion = 11

// fingerprint names everything that a standing is folded from.
func (sh shelf) fingerprint() string {
	return digest(sh.folded(), sh.today.Format(time.DateOnly))
}

// folded names all of that but the day.
func (sh shelf) folded() string {
	return digest(foldVersion, sh.ladder.Entries, sh.studio.LibraryVersion, sh.policy)
}

func digest(of ...any) string {
	sum := sha256.Sum256([]byte(fmt.Sprint(of...)))
	return hex.EncodeToString(sum[:])
}

// shelves opens the ladders of a studio for one instrument ("" for all), in the
// order of their lessons. What is kept comes in one query for all of them.
func (s *Server) shelves(ctx context.Context, b book, instrument string) ([]shelf, error) {
	ladders, err := s.store.Ladders(ctx, b.studio.ID)
	if err != nil {
		return nil, err
	}
	kept, err := s.store.Snapshots(ctx, b.studio.ID)
	if err != nil {
		return nil, err
	}
	var out []shelf
	for _, l := range ladders {
		if instrument != "" && l.Instrument != instrument {
			continue
		}
		sh, err := b.on(l)
		if err != nil {
			return nil, err
		}
		if k := kept[l.ID]; k.Key == sh.fingerprint() {
			sh.standing, _ = standing.Decode(k.Body) // a damaged one is folded anew
		}
		out = append(out, sh)
	}
	// After a change of the library or the way every standing is folded anew: side by side.
	errs := make([]error, len(out))
	parallel.Each(len(out), func(i int) {
		if out[i].standing == nil {
			errs[i] = s.fold(ctx, &out[i])
		}
	})
	return out, errors.Join(errs...)
}

// fold folds the standing of a ladder anew from its log, and keeps it.
func (s *Server) fold(ctx context.Context, sh *shelf) error {
	log, err := s.store.Log(ctx, sh.studio.ID, sh.ladder.ID)
	if err != nil {
		return err
	}
	sh.standing = standing.Fold(log, standing.Context{Library: sh.lib, Skills: sh.skills, Family: sh.family, Policy: sh.policy, Day: sh.today})
	body, err := sh.standing.Encode()
	if err != nil {
		return err
	}
	return s.store.SaveSnapshot(ctx, sh.studio.ID, sh.ladder.ID, store.Kept{Key: sh.fingerprint(), Body: body})
}
