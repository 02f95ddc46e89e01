package store

import (
	"context"
	"database/sql"
	"encoding/json"

	"patientladder/core/library/material"
	"patientladder/core/library/skill"
	"patientladder/store/rows"
)

// Aliases are the materials in whose place another one stands, by their ids.
func (s *Store) Aliases(ctx context.Context, studio string) (map[string]string, error) {
	list, err := s.q(ctx).Aliases(ctx, studio)
	out := make(map[string]string, len(list))
	for _, r := range list {
		out[r.ID] = r.MergedInto
	}
	return out, err
}

// MergeMaterial puts a material in the place of another on every ladder; entries that name the other mean it from then on.
func (s *Store) MergeMaterial(ctx context.Context, studio, id, into string) error {
	return explain(s.within(ctx, func(q *rows.Queries) error {
		for _, step := range []func() error{
			func() error {
				return q.MergeMaterial(ctx, rows.MergeMaterialParams{MergedInto: into, StudioID: studio, ID: id})
			},
			func() error {
				return q.MergeAgain(ctx, rows.MergeAgainParams{MergedInto: into, StudioID: studio, MergedInto_2: id})
			},
			func() error {
				return q.MoveRungs(ctx, rows.MoveRungsParams{MaterialID: into, StudioID: studio, MaterialID_2: id})
			},
			func() error { return q.DropRungsOf(ctx, rows.DropRungsOfParams{StudioID: studio, MaterialID: id}) },
			func() error {
				return q.MoveTargets(ctx, rows.MoveTargetsParams{MaterialID: into, StudioID: studio, MaterialID_2: id})
			},
			func() error {
				return q.MoveTreats(ctx, rows.MoveTreatsParams{MaterialID: into, StudioID: studio, MaterialID_2: id})
			},
			func() error { return q.LibraryChanged(ctx, studio) },
		} {
			if err := step(); err != nil {
				return err
			}
		}
		return nil
	}))
}

// RemoveMaterial removes a material on which nothing hangs; one that is on a ladder, in a log, a date to be
// ready for or a treat is retired instead.
func (s *Store) RemoveMaterial(ctx context.Context, studio, id string) (removed bool, err error) {
	err = s.within(ctx, func(q *rows.Queries) error {
		removed, err = removeMaterial(ctx, q, studio, id)
		if err != nil {
			return err
		}
		return q.LibraryChanged(ctx, studio)
	})
	return removed, explain(err)
}

func removeMaterial(ctx context.Context, q *rows.Queries, studio, id string) (removed bool, err error) {
	if _, err := q.LockMaterial(ctx, rows.LockMaterialParams{StudioID: studio, ID: id}); err != nil {
		return false, err
	}
	n, err := q.CountHanging(ctx, rows.CountHangingParams{Studio: studio, Material: id, About: about(id), Mentions: mentions(id)})
	if err != nil {
		return false, err
	}
	if n > 0 {
		return false, q.RetireMaterial(ctx, rows.RetireMaterialParams{Retired: true, StudioID: studio, ID: id})
	}
	for _, step := range []func() error{
		func() error { return q.DropDemands(ctx, rows.DropDemandsParams{StudioID: studio, MaterialID: id}) },
		func() error {
			return q.DropFocusPoints(ctx, rows.DropFocusPointsParams{StudioID: studio, MaterialID: id})
		},
		func() error { return q.DropScoreFile(ctx, rows.DropScoreFileParams{StudioID: studio, MaterialID: id}) },
		func() error {
			return q.DropOverrulings(ctx, rows.DropOverrulingsParams{StudioID: studio, MaterialID: id})
		},
	} {
		if err := step(); err != nil {
			return false, err
		}
	}
	_, err = q.DropMaterial(ctx, rows.DropMaterialParams{StudioID: studio, ID: id})
	return true, err
}

// about is the material of an entry, by which it is found.
func about(material string) sql.NullString {
	return sql.NullString{String: material, Valid: len(material) <= 26}
}

// mentions is what an entry about a material holds that an older program wrote, for LIKE.
func mentions(material string) string { return `%"material":"` + material + `"%` }

// RestoreMaterial offers a retired material again.
func (s *Store) RestoreMaterial(ctx context.Context, studio, id string) error {
	return explain(s.within(ctx, func(q *rows.Queries) error {
		if err := q.RetireMaterial(ctx, rows.RetireMaterialParams{StudioID: studio, ID: id}); err != nil {
			return err
		}
		return q.LibraryChanged(ctx, studio)
	}))
}

// RemoveSource removes a book with its pieces where nothing hangs on any of them, else it retires what is left.
func (s *Store) RemoveSource(ctx context.Context, studio, id string) (removed bool, err error) {
	err = s.within(ctx, func(q *rows.Queries) error {
		n, err := q.RetireSource(ctx, rows.RetireSourceParams{Retired: true, StudioID: studio, ID: id})
		if err := found(n, err); err != nil {
			return err
		}
		list, err := q.MaterialsOfSource(ctx, materialsOf(studio, id))
		if err != nil {
			return err
		}
		removed = true
		for _, m := range list {
			gone, err := removeMaterial(ctx, q, studio, m)
			if err != nil {
				return err
			}
			removed = removed && gone
		}
		if removed {
			if _, err := q.DropSource(ctx, rows.DropSourceParams{StudioID: studio, ID: id}); err != nil {
				return err
			}
		}
		return q.LibraryChanged(ctx, studio)
	})
	return removed, explain(err)
}

// RestoreSource offers a retired book with its pieces again.
func (s *Store) RestoreSource(ctx context.Context, studio, id string) error {
	return explain(s.within(ctx, func(q *rows.Queries) error {
		if err := found(q.RetireSource(ctx, rows.RetireSourceParams{StudioID: studio, ID: id})); err != nil {
			return err
		}
		list, err := q.MaterialsOfSource(ctx, materialsOf(studio, id))
		if err != nil {
			return err
		}
		for _, m := range list {
			if err := q.RetireMaterial(ctx, rows.RetireMaterialParams{StudioID: studio, ID: m}); err != nil {
				return err
			}
		}
		return q.LibraryChanged(ctx, studio)
	}))
}

// RenameSource gives a book another title.
func (s *Store) RenameSource(ctx context.Context, studio, id, title string) error {
	return explain(s.within(ctx, func(q *rows.Queries) error {
		if err := found(q.RenameSource(ctx, rows.RenameSourceParams{Title: title, StudioID: studio, ID: id})); err != nil {
			return err
		}
		return q.LibraryChanged(ctx, studio)
	}))
}

// Require keeps what a book takes for granted, as ids of skills; nil goes back to what is proposed.
func (s *Store) Require(ctx context.Context, studio, id string, skills []string) error {
	var body sql.NullString
	if skills != nil {
		data, err := json.Marshal(skills)
		if err != nil {
			return err
		}
		body = sql.NullString{String: string(data), Valid: true}
	}
	return explain(s.within(ctx, func(q *rows.Queries) error {
		n, err := q.RequireOfSource(ctx, rows.RequireOfSourceParams{Requires: body, StudioID: studio, ID: id})
		if err != nil || n == 0 {
			return err // what stood there already changes nothing
		}
		return q.LibraryChanged(ctx, studio)
	}))
}

// Split puts sections in the place of a unit: they are added to the library, and on every ladder they stand
// where it stood.
func (s *Store) Split(ctx context.Context, studio, unit string, sections []material.Material) error {
	return explain(s.within(ctx, func(q *rows.Queries) error {
		for _, m := range sections {
			if err := addMaterial(ctx, q, studio, m, nil); err != nil {
				return err
			}
		}
		placed, err := q.RungsOf(ctx, rows.RungsOfParams{StudioID: studio, MaterialID: unit})
		if err != nil {
			return err
		}
		for _, r := range placed {
			for _, m := range sections {
				err := q.InsertRung(
					ctx,
					rows.InsertRungParams{
						StudioID:   studio,
						LadderID:   r.LadderID,
						MaterialID: m.ID,
						Strand:     r.Strand,
						Position:   r.Position,
						Aside:      r.Aside,
					},
				)
				if err != nil {
					return err
				}
			}
			if _, err := q.RemoveRung(ctx, rows.RemoveRungParams{StudioID: studio, LadderID: r.LadderID, MaterialID: unit}); err != nil {
				return err
			}
			if err := q.RungsTouched(ctx, rows.RungsTouchedParams{StudioID: studio, ID: r.LadderID}); err != nil {
				return err
			}
		}
		return q.LibraryChanged(ctx, studio)
	}))
}

// Join puts a unit in the place of its sections: those that somebody had are retired, the others are gone.
func (s *Store) Join(ctx context.Context, studio, unit string, sections []string) error {
	return explain(s.within(ctx, func(q *rows.Queries) error {
		for i, m := range sections {
			placed, err := q.RungsOf(ctx, rows.RungsOfParams{StudioID: studio, MaterialID: m})
			if err != nil {
				return err
			}
			for _, r := range placed {
				if i == 0 {
					err := q.InsertRung(
						ctx,
						rows.InsertRungParams{
							StudioID:   studio,
							LadderID:   r.LadderID,
							MaterialID: unit,
							Strand:     r.Strand,
							Position:   r.Position,
							Aside:      r.Aside,
						},
					)
					if err != nil {
						return err
					}
				}
				if _, err := q.RemoveRung(ctx, rows.RemoveRungParams{StudioID: studio, LadderID: r.LadderID, MaterialID: m}); err != nil {
					return err
				}
				if err := q.RungsTouched(ctx, rows.RungsTouchedParams{StudioID: studio, ID: r.LadderID}); err != nil {
					return err
				}
			}
			if _, err := removeMaterial(ctx, q, studio, m); err != nil {
				return err
			}
			// A retired one is no section any more, or the unit could never be cleared without it.
			if err := q.PartOf(ctx, rows.PartOfParams{PartOf: "", StudioID: studio, ID: m}); err != nil {
				return err
			}
		}
		return q.LibraryChanged(ctx, studio)
	}))
}

// SetSkill sets a skill of the studio's own, or its own form of one that ships.
func (s *Store) SetSkill(ctx context.Context, studio string, sk skill.Skill) error {
	body, err := json.Marshal(sk)
	if err != nil {
		return err
	}
	return explain(s.within(ctx, func(q *rows.Queries) error {
		if err := q.SetSkill(ctx, rows.SetSkillParams{StudioID: studio, ID: sk.ID, Body: string(body)}); err != nil {
			return err
		}
		return q.LibraryChanged(ctx, studio)
	}))
}

// DropSkill takes a skill of the studio's own away.
func (s *Store) DropSkill(ctx context.Context, studio, id string) error {
	return explain(s.within(ctx, func(q *rows.Queries) error {
		if err := found(q.DropSkill(ctx, rows.DropSkillParams{StudioID: studio, ID: id})); err != nil {
			return err
		}
		return q.LibraryChanged(ctx, studio)
	}))
}

func materialsOf(studio, source string) rows.MaterialsOfSourceParams {
	return rows.MaterialsOfSourceParams{StudioID: studio, SourceID: sql.NullString{String: source, Valid: true}}
}
