// Package storetest gives the tests of other packages a real MariaDB.
package storetest

import (
	"context"
	"fmt"
	"os"
	"strings"
	"testing"

	"github.com/oklog/ulid/v2"
	"github.com/stretchr/testify/require"

	"patientladder/account"
	"patientladder/store"
	"patientladder/store/localdb"
)

// Main starts a private MariaDB, hands the migrated store to set, runs the
// tests of a package and returns their exit code.
func Main(m *testing.M, set func(*store.Store)) int {
	account.LowerCost()
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
	dsn = db.DSN
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

// dsn opens the database of the tests.
var dsn string

// Another returns a second, empty database beside that of the tests; it goes with the test.
func Another(t *testing.T, beside *store.Store) *store.Store {
	st, err := store.Open(context.Background(), AnotherDSN(t, beside))
	require.NoError(t, err)
	t.Cleanup(func() { st.Close() })
	return st
}

// DSN opens the database of the tests.
func DSN() string { return dsn }

// AnotherDSN opens a second, empty database beside that of the tests; it goes with the test.
func AnotherDSN(t *testing.T, beside *store.Store) string {
	name := "other_" + strings.ToLower(ID())
	ctx := context.Background()
	_, err := beside.DB().ExecContext(ctx, "CREATE DATABASE "+name+" CHARACTER SET utf8mb4 COLLATE utf8mb4_unicode_ci")
	require.NoError(t, err)
	t.Cleanup(func() {
		_, err := beside.DB().ExecContext(ctx, "DROP DATABASE "+name)
		require.NoError(t, err)
	})
	return strings.Replace(dsn, "/ladder", "/"+name, 1)
}
