package api

import (
	"testing"
	"testing/fstest"

	"github.com/stretchr/testify/require"

	"patientladder/store"
)

func TestAServerNeedsAStoreAndAPage(t *testing.T) {
	for _, cfg := range []Config{{}, {Store: &store.Store{}}, {Page: fstest.MapFS{}}} {
		_, _, err := New(cfg)
		require.EqualError(t, err, "api: a store and a page are needed")
	}
}
