package localdb

import (
	"context"
	"database/sql"
	"os"
	"path/filepath"
	"strings"
	"testing"

	"github.com/stretchr/testify/require"
)

var ctx = context.Background()

func ask(t *testing.T, s *Server, query string) (out string) {
	t.Helper()
	db, err := sql.Open("mysql", s.DSN)
	require.NoError(t, err)
	defer db.Close()
	require.NoError(t, db.QueryRow(query).Scan(&out))
	return out
}

func TestTheServerIsPrivateAndDurable(t *testing.T) {
	s, err := Start(ctx, t.TempDir())
	require.NoError(t, err)
	defer s.Stop()
	require.Equal(t, "1", ask(t, s, "SELECT @@innodb_flush_log_at_trx_commit"))
	require.Equal(t, "127.0.0.1", ask(t, s, "SELECT @@bind_address"))
	info, err := os.Stat(filepath.Join(s.dir, "secret"))
	require.NoError(t, err)
	require.Equal(t, os.FileMode(0o600), info.Mode().Perm())
	// Without the secret nobody comes in.
	stranger, err := sql.Open("mysql", strings.Replace(s.DSN, s.DSN[:strings.Index(s.DSN, "@")], "ladder:", 1))
	require.NoError(t, err)
	defer stranger.Close()
	require.Error(t, stranger.Ping())
}

func TestTwoServersRunSideBySide(t *testing.T) {
	a, err := Start(ctx, t.TempDir())
	require.NoError(t, err)
	defer a.Stop()
	b, err := Start(ctx, t.TempDir())
	require.NoError(t, err)
	defer b.Stop()
	require.NotEqual(t, ask(t, a, "SELECT @@port"), ask(t, b, "SELECT @@port"))
}

func TestAnInterruptedFirstStartHeals(t *testing.T) {
	dir := t.TempDir()
	require.NoError(t, os.MkdirAll(filepath.Join(dir, "data", "half"), 0o700))
	require.NoError(t, os.WriteFile(filepath.Join(dir, "data", "ibdata1"), []byte("cut off"), 0o600))
	s, err := Start(ctx, dir)
	require.NoError(t, err)
	require.NoError(t, s.Stop())
}

func TestRemoveRefusesWhileTheServerRuns(t *testing.T) {
	dir := filepath.Join(t.TempDir(), "db")
	s, err := Start(ctx, dir)
	require.NoError(t, err)
	require.ErrorContains(t, Remove(dir), "in use")
	require.NoError(t, s.Stop())
	require.NoError(t, Remove(dir))
	require.NoDirExists(t, dir)
}

func TestAMissingServerSaysWhatToInstall(t *testing.T) {
	_, err := find("a-server-that-nobody-has", "nor-this-one")
	require.ErrorIs(t, err, ErrMissing)
	require.ErrorContains(t, err, "apt-get install mariadb-server")
	path, err := find("a-server-that-nobody-has", "mariadbd")
	require.NoError(t, err)
	require.FileExists(t, path)
}

// A folder whose name has spaces is one as any other.
func TestAFolderWithSpaces(t *testing.T) {
	dir := filepath.Join(t.TempDir(), "my music, at home")
	s, err := Start(context.Background(), dir)
	require.NoError(t, err)
	require.NoError(t, s.Stop())
}
