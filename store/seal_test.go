package store_test

import (
	"fmt"
	"strings"
	"testing"
	"time"

	"github.com/stretchr/testify/require"

	"patientladder/store"
	"patientladder/store/storetest"
)

// raw is one text of the database as it is kept.
func raw(t *testing.T, query string, args ...any) string {
	var text string
	require.NoError(t, db.DB().QueryRowContext(ctx, query, args...).Scan(&text))
	return text
}

// With a secret nothing that opens something can be read in the tables, and everything still opens; what was there before is
// sealed when the secret is given; another secret, or none, opens nothing.
func TestWhatOpensSomethingIsSealed(t *testing.T) {
	st, l, _ := studio(t, db)
	teacher, err := db.StudioTeacher(ctx, st)
	require.NoError(t, err)
	expires := time.Date(2026, 9, 1, 0, 0, 0, 0, time.UTC)
	before := "before-" + id()
	require.NoError(t, db.SetFamilyToken(ctx, store.Family{Studio: st, Ladder: l.ID, Token: before, Expires: expires}))
	require.Equal(t, before, raw(t, "SELECT token FROM family WHERE studio_id = ?", st))

	// A link of another family that differs in the case of its letters alone is another link.
	elsewhere, ol, _ := studio(t, db)
	require.NoError(
		t,
		db.SetFamilyToken(ctx, store.Family{Studio: elsewhere, Ladder: ol.ID, Token: strings.ToUpper(before), Expires: expires}),
	)
	secret, err := store.ParseSecret(store.NewSecret())
	require.NoError(t, err)
	n, err := db.Seal(ctx, secret)
	require.NoError(t, err)
	require.GreaterOrEqual(t, n, 2)
	for token, ladder := range map[string]string{before: l.ID, strings.ToUpper(before): ol.ID} {
		f, err := db.FamilyByToken(ctx, token)
		require.NoError(t, err)
		require.Equal(t, []string{ladder, token}, []string{f.Ladder, f.Token})
	}
	t.Cleanup(func() { require.NoError(t, db.DropSealed(ctx)); _, err := db.Seal(ctx, nil); require.NoError(t, err) })
	require.True(t, strings.HasPrefix(raw(t, "SELECT token FROM family WHERE studio_id = ?", st), "sealed:"))
	f, err := db.FamilyByToken(ctx, before)
	require.NoError(t, err)
	require.Equal(t, before, f.Token)
	n, err = db.Seal(ctx, secret)
	require.NoError(t, err)
	require.Zero(t, n, "once")

	require.NoError(t, db.SetFeed(ctx, st, "feed"+st))
	require.NoError(t, db.SetSecond(ctx, teacher.ID, "JBSWY3DPEHPK3PXP", 1, nil))
	require.NotContains(t, raw(t, "SELECT token FROM studio_feed WHERE studio_id = ?", st), "feed")
	require.NotContains(t, raw(t, "SELECT second_secret FROM teacher WHERE id = ?", teacher.ID), "JBSWY3DPEHPK3PXP")
	feed, err := db.Feed(ctx, st)
	require.NoError(t, err)
	require.Equal(t, "feed"+st, feed)
	got, err := db.Teacher(ctx, teacher.ID)
	require.NoError(t, err)
	require.Equal(t, "JBSWY3DPEHPK3PXP", got.SecondSecret)

	other, err := store.ParseSecret(store.NewSecret())
	require.NoError(t, err)
	for _, wrong := range []*store.Secret{other, nil} {
		_, err = db.Seal(ctx, wrong)
		require.ErrorIs(t, err, store.ErrSealed)
		require.ErrorIs(t, db.Opens(ctx, wrong), store.ErrSealed)
	}
	got, err = db.Teacher(ctx, teacher.ID)
	require.NoError(t, err)
	require.Equal(t, "JBSWY3DPEHPK3PXP", got.SecondSecret, "the right one stays")

	var out strings.Builder
	_, err = db.ExportStudio(ctx, st, &out, expires)
	require.NoError(t, err)
	require.Contains(t, out.String(), before, "an export is read elsewhere")
	require.NotContains(t, out.String(), "sealed:")
}

// Two servers that start with different secrets while nothing is sealed yet: the second is refused, and so is one without any.
func TestServersShareOneSecretFromTheFirstStart(t *testing.T) {
	fresh := storetest.Another(t, db)
	require.NoError(t, fresh.Migrate(ctx))
	mine, err := store.ParseSecret(store.NewSecret())
	require.NoError(t, err)
	other, err := store.ParseSecret(store.NewSecret())
	require.NoError(t, err)
	_, err = fresh.Seal(ctx, nil)
	require.NoError(t, err, "without a secret a server starts, as long as none was given")
	n, err := fresh.Seal(ctx, mine)
	require.NoError(t, err)
	require.Zero(t, n, "nothing to seal yet")
	for _, wrong := range []*store.Secret{other, nil} {
		_, err = fresh.Seal(ctx, wrong)
		require.ErrorIs(t, err, store.ErrSealed)
		require.ErrorIs(t, fresh.Opens(ctx, wrong), store.ErrSealed)
	}
	_, err = fresh.Seal(ctx, mine)
	require.NoError(t, err)
	require.NoError(t, fresh.DropSealed(ctx))
	_, err = fresh.Seal(ctx, other)
	require.NoError(t, err, "dropped, another may come")
}

// A program starts on tables that a newer one made where those say that it can serve them, and not where they say otherwise.
func TestTablesOfANewerProgram(t *testing.T) {
	fresh := storetest.Another(t, db)
	require.NoError(t, fresh.Migrate(ctx))
	newest, since, err := store.Schemas()
	require.NoError(t, err)
	require.Equal(t, int64(16), since)
	exec := func(q string, args ...any) {
		_, err := fresh.DB().ExecContext(ctx, q, args...)
		require.NoError(t, err)
	}
	exec("INSERT INTO goose_db_version (version_id, is_applied) VALUES (?, 1)", newest+3)
	require.NoError(t, fresh.Migrate(ctx), "these tables can be served")
	exec("UPDATE serving SET since = ?", newest+2)
	err = fresh.Migrate(ctx)
	require.ErrorIs(t, err, store.ErrTooNew)
	require.EqualError(
		t,
		err,
		fmt.Sprintf(
			"the tables were made by a newer program, and this one cannot serve them (tables %d, which programs that know %d or more can serve; this one knows %d): start the newer program",
			newest+3,
			newest+2,
			newest,
		),
	)
	exec("DROP TABLE serving")
	require.ErrorIs(t, fresh.Migrate(ctx), store.ErrTooNew)
}

func TestASecretIsDropped(t *testing.T) {
	st, l, _ := studio(t, db)
	teacher, err := db.StudioTeacher(ctx, st)
	require.NoError(t, err)
	secret, err := store.ParseSecret(store.NewSecret())
	require.NoError(t, err)
	_, err = db.Seal(ctx, secret)
	require.NoError(t, err)
	token := "tok-" + id()
	require.NoError(
		t,
		db.SetFamilyToken(ctx, store.Family{Studio: st, Ladder: l.ID, Token: token, Expires: time.Date(2026, 9, 1, 0, 0, 0, 0, time.UTC)}),
	)
	require.NoError(t, db.SetSecond(ctx, teacher.ID, "JBSWY3DPEHPK3PXP", 1, []string{"x"}))
	require.NoError(t, db.DropSealed(ctx))
	_, err = db.Seal(ctx, nil)
	require.NoError(t, err)
	_, err = db.FamilyByToken(ctx, token)
	require.ErrorIs(t, err, store.ErrNotFound)
	got, err := db.Teacher(ctx, teacher.ID)
	require.NoError(t, err)
	require.Empty(t, got.SecondSecret)
}

func TestASecretFileIsRead(t *testing.T) {
	text := store.NewSecret()
	require.NotEqual(t, text, store.NewSecret())
	_, err := store.ParseSecret(strings.Split(text, "\n")[1])
	require.NoError(t, err, "the line alone")
	_, err = store.ParseSecret("nothing")
	require.EqualError(t, err, "it is no secret file; 'ladder secret' makes one")
	_, err = store.ParseSecret("PATIENT-LADDER-SECRET-abc")
	require.EqualError(t, err, "the secret in the file is not whole; 'ladder secret' makes a file")
}
