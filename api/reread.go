package api

import (
	"context"
	"fmt"

	"patientladder/app/open"
	"patientladder/core/reading/demand"
	"patientladder/store"
)

// Reread reads the scores again that were read by older rules, so that what
// they ask for is what a new upload would ask for. What teachers set stays. It
// returns how many were read; a score that cannot be read any more is left as it is.
func Reread(ctx context.Context, st *store.Store) (int, error) {
	_, table, err := demand.Shipped()
	if err != nil {
		return 0, err
	}
	studios, err := st.OutdatedStudios(ctx, demand.RulesVersion)
	if err != nil {
		return 0, err
	}
	count := 0
	for _, studio := range studios {
		lib, err := st.Library(ctx, studio)
		if err != nil {
			return count, err
		}
		for _, m := range lib {
			if !m.HasScore || m.Rules >= demand.RulesVersion {
				continue
			}
			file, err := st.ScoreFile(ctx, studio, m.ID)
			if err != nil {
				return count, fmt.Errorf("the score of material %s: %w", m.ID, err)
			}
			own, err := st.Overrulings(ctx, studio, m.ID)
			if err != nil {
				return count, err
			}
			o, err := open.ReadFile(file, m.Instrument, own)
			if err != nil {
				continue
			}
			if err := st.SaveReading(ctx, studio, store.Reading{Material: open.Described(m, o, table)}); err != nil {
				return count, err
			}
			count++
		}
	}
	return count, nil
}
