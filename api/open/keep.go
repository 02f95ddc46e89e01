package open

import (
	"context"
	"fmt"

	lru "github.com/hashicorp/golang-lru/v2"

	"patientladder/core/library/material"
	"patientladder/core/library/skill"
	"patientladder/core/planning/forecast"
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
)

type memory struct {
	libraries *lru.Cache[string, library]
	scores    *lru.Cache[string, *Score]
	models    *lru.Cache[string, *forecast.Model]
}

type library struct {
	materials material.Library
	skills    skill.Catalogue
}

func newMemory() (*memory, error) {
	libraries, err := lru.New[string, library](keptLibraries)
	if err != nil {
		return nil, err
	}
	scores, err := lru.New[string, *Score](keptScores)
	if err != nil {
		return nil, err
	}
	models, err := lru.New[string, *forecast.Model](keptModels)
	return &memory{libraries, scores, models}, err
}

// library returns the materials and skills of a studio. They are shared: nobody writes to them.
func (d *Desk) library(ctx context.Context, tenant store.Studio) (material.Library, skill.Catalogue, error) {
	key := fmt.Sprintf("%s %d", tenant.ID, tenant.LibraryVersion)
	if kept, ok := d.kept.libraries.Get(key); ok {
		return kept.materials, kept.skills, nil
	}
	skills, err := d.skills(ctx, tenant.ID)
	if err != nil {
		return nil, skills, err
	}
	lib, err := d.Store.Library(ctx, tenant.ID)
	if err != nil {
		return nil, skills, err
	}
	d.kept.libraries.Add(key, library{lib, skills})
	return lib, skills, nil
}

// skills are those that ship with those of the studio's own.
func (d *Desk) skills(ctx context.Context, studio string) (skill.Catalogue, error) {
	own, err := d.Store.Skills(ctx, studio)
	if err != nil || len(own) == 0 {
		return d.Shipped, err
	}
	return d.Shipped.With(own)
}
