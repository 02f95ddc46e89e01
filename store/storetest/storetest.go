// Package storetest gives the tests of other packages a real MariaDB.
package storetest

import (
	"context"
	"fmt"
	"os"
	"testing"

	"github.com/oklog/ulid/v2"

	"patientladder/store"
	"patientladder/store/localdb"
)

// Main starts a private MariaDB, hands the migrated store to set, runs the
// tests of a package and returns their exit code.
func Main(m *testing.M, set func(*store.Store)) int {
	dir, err := os.MkdirTemp("", "ladder-test-")
	if err != nil {
		fmt.Fprintln(os.Stderr, err)
		return 1
	}
	defer os.RemoveAll(dir)
	ctx := context.Background()
	db, err := localdb.Start(ctx, dir)
	if err != nil {
		fmt.Fprintln(os.Stderr, err)
		return 1
	}
	defer db.Stop()
	st, err := store.Open(ctx, db.DSN)
	if err == nil {
		defer st.Close()
		err = st.Migrate(ctx)
	}
	if err != nil {
		fmt.Fprintln(os.Stderr, err)
		return 1
	}
	set(st)
	return m.Run()
}

// ID makes a new id.
func ID() string { return ulid.Make().String() }
