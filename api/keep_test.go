package api_test

import (
	"bytes"
	"context"
	"net/http/httptest"
	"strings"
	"testing"
	"testing/fstest"
	"time"

	"github.com/stretchr/testify/require"
	"golang.org/x/sync/errgroup"

	"patientladder/api"
	"patientladder/demo"
	"patientladder/store"
	"patientladder/store/dump"
	"patientladder/store/storetest"
)

func backup(t *testing.T, s *store.Store) []byte {
	var out bytes.Buffer
	rows, err := s.Backup(context.Background(), &out, may4())
	require.NoError(t, err)
	require.Greater(t, rows, 1000)
	return out.Bytes()
}

// A backup that is restored elsewhere is the same to the byte, and so is the export of the studio; the teacher signs in there
// and sees the same day.
func TestABackupIsRestored(t *testing.T) {
	ctx := context.Background()
	kept := backup(t, db)
	h, err := dump.Check(bytes.NewReader(kept))
	require.NoError(t, err)
	require.Equal(t, []any{dump.Format, 1, ""}, []any{h.Format, h.Version, h.Studio})
	there := storetest.Another(t, db)
	_, err = there.Restore(ctx, h, bytes.NewReader(kept))
	require.NoError(t, err)
	require.Equal(t, string(kept), string(backup(t, there)))
	_, err = there.Restore(ctx, h, bytes.NewReader(kept))
	require.ErrorIs(t, err, store.ErrNotEmpty)

	_, err = there.Seal(ctx, nil)
	require.ErrorIs(t, err, store.ErrSealed, "the secret does not travel with the backup")
	_, err = there.Seal(ctx, sealed)
	require.NoError(t, err)
	owner, err := db.TeacherByEmail(ctx, demo.Email)
	require.NoError(t, err)
	export := func(s *store.Store) string {
		var out bytes.Buffer
		_, err := s.ExportStudio(ctx, owner.StudioID, &out, may4())
		require.NoError(t, err)
		return out.String()
	}
	whole := export(db)
	require.Equal(t, whole, export(there))
	require.NotContains(t, whole, "argon2id")
	require.NotContains(t, whole, strangerEmail, "another studio")

	_, handler, err := api.New(
		api.Config{Store: there, Page: fstest.MapFS{"index.html": {Data: []byte("<!doctype html>")}}, Now: func() time.Time { return now }},
	)
	require.NoError(t, err)
	server := httptest.NewServer(handler)
	t.Cleanup(server.Close)
	u := anyone(t)
	u.url = server.URL
	status, _ := u.call("POST", "/api/session", map[string]string{"email": demo.Email, "password": demo.Password})
	require.Equal(t, 200, status)
	require.Equal(t, teacher(t).read("/api/today"), u.read("/api/today"))
}

// A studio that was taken out stands on another server as it was, but for the passwords; one that is there is left alone.
func TestAStudioMovesToAnotherServer(t *testing.T) {
	ctx := context.Background()
	owner, err := db.TeacherByEmail(ctx, demo.Email)
	require.NoError(t, err)
	var out bytes.Buffer
	_, err = db.ExportStudio(ctx, owner.StudioID, &out, may4())
	require.NoError(t, err)
	h, err := dump.Check(bytes.NewReader(out.Bytes()))
	require.NoError(t, err)
	there := storetest.Another(t, db)
	require.NoError(t, there.Migrate(ctx))
	_, err = there.ImportStudio(ctx, h, bytes.NewReader(out.Bytes()))
	require.NoError(t, err)
	var again bytes.Buffer
	_, err = there.ExportStudio(ctx, owner.StudioID, &again, may4())
	require.NoError(t, err)
	require.Equal(t, out.String(), again.String())
	_, err = there.ImportStudio(ctx, h, bytes.NewReader(out.Bytes()))
	require.ErrorIs(t, err, store.ErrConflict)
	h.Schema--
	_, err = there.ImportStudio(ctx, h, bytes.NewReader(out.Bytes()))
	require.ErrorContains(t, err, "use the program that wrote it")
}

// What is cut short or was changed is refused with its line, and leaves nothing.
func TestADamagedBackup(t *testing.T) {
	ctx := context.Background()
	kept := string(backup(t, db))
	lines := strings.SplitAfter(kept, "\n")
	for name, c := range map[string]struct{ text, says string }{
		"empty":         {"", "it ends after line 0, before its end"},
		"something":     {"{}\n", "its first line is not that of a backup"},
		"cut":           {strings.Join(lines[:40], ""), "it ends after line 40, before its end"},
		"cut in a line": {kept[:len(kept)/2], ""},
		"a line gone":   {strings.Join(append(append([]string{}, lines[:30]...), lines[31:]...), ""), "its lines were changed"},
		"more":          {kept + "{}\n", "something follows its end"},
		"newer":         {strings.Replace(kept, `"version":1`, `"version":2`, 1), "it is of version 2, and this program reads 1"},
	} {
		_, err := dump.Check(strings.NewReader(c.text))
		require.ErrorIs(t, err, dump.ErrDamaged, name)
		require.ErrorContains(t, err, c.says, name)
		require.ErrorContains(t, err, "nothing was changed", name)
	}
	there := storetest.Another(t, db)
	h, err := dump.Check(strings.NewReader(kept))
	require.NoError(t, err)
	_, err = there.Restore(ctx, h, strings.NewReader(strings.Join(lines[:400], "")))
	require.ErrorIs(t, err, dump.ErrDamaged)
	_, err = there.TeacherByEmail(ctx, demo.Email)
	require.ErrorIs(t, err, store.ErrNotFound)
	schema := h.Schema
	h.Schema = 9999
	_, err = there.Restore(ctx, h, strings.NewReader(kept))
	require.ErrorContains(t, err, "of a newer program")
	h.Schema = schema
	_, err = there.Restore(ctx, h, strings.NewReader(kept))
	require.NoError(t, err, "tables without a studio are made anew")
}

// Servers that start together migrate one after the other.
func TestServersMigrateOneAfterTheOther(t *testing.T) {
	there := storetest.Another(t, db)
	var all errgroup.Group
	for range 4 {
		all.Go(func() error { return there.Migrate(context.Background()) })
	}
	require.NoError(t, all.Wait())
	schema, err := there.Schema(context.Background())
	require.NoError(t, err)
	pending, err := there.Pending(context.Background())
	require.NoError(t, err)
	require.Equal(t, []any{true, 0}, []any{schema >= 19, pending})
}
