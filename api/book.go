package api

import (
	"context"
	"crypto/sha256"
	"encoding/hex"
	"encoding/json"
	"fmt"
	"sort"
	"time"

	"patientladder/core/ladder"
	"patientladder/core/material"
	"patientladder/core/naming"
	"patientladder/core/skill"
	"patientladder/core/standing"
	"patientladder/store"
)

// book is what the handlers read for one studio: its library and its day.
type book struct {
	studio store.Studio
	lib    material.Library
	zone   *time.Location
	// skills is the catalogue in the studio's words.
	skills skill.Catalogue
	policy standing.Policy
	// now is the time, today the local day at midnight UTC.
	now, today time.Time
}

func (s *Server) book(ctx context.Context) (book, error) {
	studio, err := s.store.Studio(ctx, actor(ctx).studio)
	if err != nil {
		return book{}, err
	}
	b := book{studio: studio, now: s.now(), skills: s.skills, policy: s.policy}
	if studio.Words.Values == naming.QuarterNotes {
		b.skills = s.skills.Renamed(studio.Words.Text)
	}
	if b.zone, err = time.LoadLocation(studio.Timezone); err != nil {
		b.zone = time.UTC
	}
	b.today = b.day(b.now)
	b.lib, err = s.store.Library(ctx, studio.ID)
	return b, err
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
	ladder   store.Ladder
	family   material.Family
	standing *standing.Standing
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

// learned returns the cleared materials, the one most faded first.
func (sh shelf) learned() []string {
	ids := sh.standing.In(standing.Cleared, standing.Polished)
	sort.SliceStable(ids, func(a, b int) bool {
		x, y := sh.recall(ids[a]), sh.recall(ids[b])
		if x != y {
			return x < y
		}
		return sh.standing.Materials[ids[a]].LastPlayed.Before(sh.standing.Materials[ids[b]].LastPlayed)
	})
	return ids
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
	family, _ := material.FamilyOf(l.Instrument)
	sh := shelf{book: b, ladder: l, family: family}
	var err error
	sh.standing, err = s.standing(ctx, b, l, family)
	return sh, err
}

// foldVersion changes when the fold itself changes, so that old snapshots are not used.
const foldVersion = 4

// fingerprint names everything that a standing is folded from.
func (s *Server) fingerprint(b book, mark store.LogMark) string {
	sum := sha256.Sum256([]byte(fmt.Sprint(foldVersion, mark.Entries, mark.Last, b.studio.LibraryVersion, b.today.Format(time.DateOnly), s.policy)))
	return hex.EncodeToString(sum[:])
}

// shelves opens the ladders of a studio for one instrument ("" for all), in the
// order of their lessons. What is cached comes in two queries for all of them.
func (s *Server) shelves(ctx context.Context, b book, instrument string) ([]shelf, error) {
	ladders, err := s.store.Ladders(ctx, b.studio.ID)
	if err != nil {
		return nil, err
	}
	cached, err := s.store.CachedStandings(ctx, b.studio.ID)
	if err != nil {
		return nil, err
	}
	var out []shelf
	for _, l := range ladders {
		if instrument != "" && l.Instrument != instrument {
			continue
		}
		family, _ := material.FamilyOf(l.Instrument)
		sh := shelf{book: b, ladder: l, family: family, standing: &standing.Standing{}}
		c := cached[l.ID]
		if c.Fingerprint != s.fingerprint(b, c.Mark) || json.Unmarshal(c.Body, sh.standing) != nil {
			if sh.standing, err = s.standing(ctx, b, l, family); err != nil {
				return nil, err
			}
		}
		out = append(out, sh)
	}
	return out, nil
}

// standing returns the standing of a ladder, from the snapshot when nothing has
// changed since, else folded anew from the log.
func (s *Server) standing(ctx context.Context, b book, l store.Ladder, family material.Family) (*standing.Standing, error) {
	mark, err := s.store.LogMark(ctx, b.studio.ID, l.ID)
	if err != nil {
		return nil, err
	}
	fingerprint := s.fingerprint(b, mark)
	body, ok, err := s.store.Snapshot(ctx, b.studio.ID, l.ID, fingerprint)
	if err != nil {
		return nil, err
	}
	if ok {
		cached := &standing.Standing{}
		if json.Unmarshal(body, cached) == nil {
			return cached, nil
		}
	}
	log, err := s.store.Log(ctx, b.studio.ID, l.ID)
	if err != nil {
		return nil, err
	}
	st := standing.Fold(log, standing.Context{Library: b.lib, Skills: s.skills, Family: family, Policy: s.policy, Day: b.today})
	if body, err = json.Marshal(st); err != nil {
		return nil, err
	}
	return st, s.store.SaveSnapshot(ctx, b.studio.ID, l.ID, fingerprint, body)
}

// view draws the ladder of a shelf.
func (s *Server) view(ctx context.Context, sh shelf) (ladder.View, error) {
	placed, err := s.store.Rungs(ctx, sh.studio.ID, sh.ladder.ID)
	if err != nil {
		return ladder.View{}, err
	}
	return ladder.Draw(sh.standing, sh.lib, placed, s.policy.Leap, sh.today), nil
}

// drawn opens a ladder and draws it.
func (s *Server) drawn(ctx context.Context, id string) (shelf, ladder.View, error) {
	sh, err := s.shelf(ctx, id)
	if err != nil {
		return sh, ladder.View{}, err
	}
	v, err := s.view(ctx, sh)
	return sh, v, err
}
