// Package document holds what is kept as JSON, each kind as a type of its own with a version, so
// that a type of core can be renamed or divided without touching what is kept.
//
//	plan.go   the plan of a lesson, and what was set by hand in it
//	week.go   a week as it was published, and what was set by hand in it
//	entry.go  an entry of a log
//	load.go   how hard a piece is
//
// A version changes when a document of an older one has to be read in another way; every
// version that was ever written can be read.
package document

import (
	"encoding/json"
	"fmt"
)

// versioned is the part that all documents share.
type versioned struct {
	Version int `json:"version,omitempty"`
}

// known refuses a document that a later program wrote.
func known(data []byte, newest int) (int, error) {
	var v versioned
	if err := json.Unmarshal(data, &v); err != nil {
		return 0, err
	}
	if v.Version > newest {
		return 0, fmt.Errorf("it was written by a later version of the program (%d; this one reads up to %d)", v.Version, newest)
	}
	return v.Version, nil
}
