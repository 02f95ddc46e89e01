package main

import (
	"bufio"
	"bytes"
	"compress/gzip"
	"context"
	"errors"
	"fmt"
	"io"
	"os"
	"path/filepath"
	"slices"
	"strings"
	"time"

	"filippo.io/age"

	"patientladder/clock"
	"patientladder/store"
	"patientladder/store/dump"
)

const (
	backupName   = "patient-ladder-"
	backupSuffix = ".backup"
	// cutShort is what is said of a backup that cannot be read to its end.
	cutShort = "the backup is not whole, or the key is another one: %w; nothing was changed"
)

// makeKey writes a new key: what backups are encrypted for, and what opens them.
func makeKey(args []string, out io.Writer) error {
	if err := flags("key", "Writes a new key for backups: what they are encrypted for, and what opens them. Keep it away from the server.", out).read(args); err != nil {
		return err
	}
	id, err := age.GenerateX25519Identity()
	if err != nil {
		return err
	}
	_, err = fmt.Fprintf(
		out,
		"# Keep this file away from the server; without it no backup can be read.\n# For encrypting alone the server needs only: %s\n%s\n",
		id.Recipient(),
		id,
	)
	return err
}

// recipients are for whom a key file encrypts: a whole key, or only the part that encrypts.
func recipients(file string) ([]age.Recipient, error) {
	data, err := os.ReadFile(file)
	if err != nil {
		return nil, fmt.Errorf("the key file: %w", err)
	}
	if list, err := age.ParseIdentities(bytes.NewReader(data)); err == nil {
		var out []age.Recipient
		for _, id := range list {
			if x, ok := id.(*age.X25519Identity); ok {
				out = append(out, x.Recipient())
			}
		}
		return out, nil
	}
	out, err := age.ParseRecipients(bytes.NewReader(data))
	if err != nil {
		return nil, fmt.Errorf("%s is no key file; 'ladder key' makes one", file)
	}
	return out, nil
}

func identities(file string) ([]age.Identity, error) {
	data, err := os.ReadFile(file)
	if err != nil {
		return nil, fmt.Errorf("the key file: %w", err)
	}
	out, err := age.ParseIdentities(bytes.NewReader(data))
	if err != nil {
		return nil, fmt.Errorf("%s opens no backup; it needs the line that begins with AGE-SECRET-KEY", file)
	}
	return out, nil
}

func runBackup(args []string, out io.Writer) error {
	f := flags("backup", "Writes everything that the database holds, compressed and encrypted.", out)
	dsn, key := dsnFlag(f), f.String("key", os.Getenv("LADDER_KEY"), "the key file")
	to, keep := f.String("to", "-", "a folder, a file, or - for the output"), f.Int("keep", 14, "how many backups stay in the folder")
	if err := f.read(args); err != nil {
		return err
	}
	if *key == "" {
		return usageError("ladder backup needs --key FILE; 'ladder key' makes one")
	}
	if *keep < 1 {
		return usageError(
			fmt.Sprintf("--keep is how many backups stay, this one among them: 1 or more, not %d. Nothing was written or deleted", *keep),
		)
	}
	for_, err := recipients(*key)
	if err != nil {
		return err
	}
	ctx, now := context.Background(), clock.Real()
	st, err := opened(ctx, *dsn)
	if err != nil {
		return err
	}
	defer st.Close()
	if *to == "-" {
		_, err := encrypt(ctx, st, out, for_, now)
		return err
	}
	folder, name := filepath.Dir(*to), filepath.Base(*to)
	if info, err := os.Stat(*to); err == nil && info.IsDir() {
		folder, name = *to, backupName+now.UTC().Format("2006-01-02T150405Z")+backupSuffix
	}
	// It has its name only when it is whole.
	file, err := os.CreateTemp(folder, ".unfinished-*")
	if err != nil {
		return err
	}
	defer os.Remove(file.Name())
	rows, err := encrypt(ctx, st, file, for_, now)
	if err := errors.Join(err, file.Sync(), file.Close()); err != nil {
		return err
	}
	if err := os.Rename(file.Name(), filepath.Join(folder, name)); err != nil {
		return err
	}
	fmt.Fprintf(out, "%s: %d rows\n", filepath.Join(folder, name), rows)
	if folder == *to {
		return rotate(folder, *keep)
	}
	return nil
}

// rotate takes the oldest backups of a folder away, so that no more than keep stay.
func rotate(folder string, keep int) error {
	list, err := filepath.Glob(filepath.Join(folder, backupName+"*"+backupSuffix))
	if err != nil {
		return err
	}
	slices.Sort(list) // they are named by their time
	for _, old := range list[:max(0, len(list)-keep)] {
		if err := os.Remove(old); err != nil {
			return err
		}
	}
	return nil
}

func encrypt(ctx context.Context, st *store.Store, w io.Writer, for_ []age.Recipient, now time.Time) (int, error) {
	sealed, err := age.Encrypt(w, for_...)
	if err != nil {
		return 0, err
	}
	small := gzip.NewWriter(sealed)
	rows, err := st.Backup(ctx, small, now)
	if err != nil {
		return 0, err
	}
	return rows, errors.Join(small.Close(), sealed.Close())
}

func runRestore(args []string, in io.Reader, out io.Writer) error {
	f := flags("restore", "Puts a backup into an empty database. It is read to its end before anything is changed.", out)
	dsn, key, from := dsnFlag(
		f,
	), f.String(
		"key",
		os.Getenv("LADDER_KEY"),
		"the key file",
	), f.String(
		"from",
		"-",
		"the backup; - for the input",
	)
	if err := f.read(args); err != nil {
		return err
	}
	if *key == "" {
		return usageError("ladder restore needs --key FILE")
	}
	ids, err := identities(*key)
	if err != nil {
		return err
	}
	file := *from
	if file == "-" { // it is read twice: to its end before anything is changed
		spool, err := spooled(in)
		if err != nil {
			return err
		}
		defer os.Remove(spool)
		file = spool
	}
	var h dump.Header
	if err := decrypted(file, ids, func(r io.Reader) error { h, err = dump.Check(r); return err }); err != nil {
		return err
	}
	if h.Studio != "" {
		return errors.New("this is the export of one studio; 'ladder import' reads it")
	}
	ctx := context.Background()
	st, err := opened(ctx, *dsn)
	if err != nil {
		return err
	}
	defer st.Close()
	var rows int
	if err := decrypted(file, ids, func(r io.Reader) error { rows, err = st.Restore(ctx, h, r); return err }); err != nil {
		return err
	}
	_, err = fmt.Fprintf(out, "Restored what was kept on %s: %d rows.\n", h.Made.Format("2 January 2006, 15:04 UTC"), rows)
	return err
}

// spooled keeps what comes in a file of its own and returns its name; whoever asked for it takes it away.
func spooled(in io.Reader) (string, error) {
	f, err := os.CreateTemp("", "ladder-input-")
	if err != nil {
		return "", err
	}
	_, err = io.Copy(f, in)
	if err = errors.Join(err, f.Close()); err != nil {
		os.Remove(f.Name())
		return "", err
	}
	return f.Name(), nil
}

// decrypted reads a backup.
func decrypted(file string, ids []age.Identity, read func(io.Reader) error) error {
	f, err := os.Open(file)
	if err != nil {
		return err
	}
	defer f.Close()
	plain, err := age.Decrypt(bufio.NewReader(f), ids...)
	if err != nil {
		return fmt.Errorf(cutShort, err)
	}
	small, err := gzip.NewReader(plain)
	if err != nil {
		return fmt.Errorf(cutShort, err)
	}
	return read(small)
}

// opened opens a database and leaves its tables as they are.
func opened(ctx context.Context, dsn string) (*store.Store, error) {
	if dsn == "" {
		return nil, noDSN
	}
	return store.Open(ctx, dsn)
}

func runExport(args []string, out io.Writer) error {
	f := flags("export", "Writes a whole studio as lines of JSON, without passwords (docs/formats.md).", out)
	dsn, email, secret := dsnFlag(f), f.String("email", "", "the owner of the studio"), secretFlag(f)
	if err := f.read(args); err != nil {
		return err
	}
	ctx := context.Background()
	st, err := opened(ctx, *dsn)
	if err != nil {
		return err
	}
	if err := sealing(ctx, st, *secret); err != nil {
		return err
	}
	defer st.Close()
	t, err := st.TeacherByEmail(ctx, strings.ToLower(*email))
	if err != nil {
		return fmt.Errorf("%s has no account", *email)
	}
	_, err = st.ExportStudio(ctx, t.StudioID, out, clock.Real())
	return err
}

func runImport(args []string, in io.Reader, out io.Writer) error {
	f := flags("import", "Puts a studio that was exported into another database.", out).wants("FILE", 1, 1)
	dsn, secret := dsnFlag(f), secretFlag(f)
	if err := f.read(args); err != nil {
		return err
	}
	name := f.given[0]
	if name == "-" { // it is read twice: to its end before anything is changed
		spool, err := spooled(in)
		if err != nil {
			return err
		}
		defer os.Remove(spool)
		name = spool
	}
	read := func(use func(io.Reader) error) error {
		file, _, err := input(name, nil)
		if err != nil {
			return err
		}
		defer file.Close()
		return use(file)
	}
	var h dump.Header
	if err := read(func(r io.Reader) (err error) { h, err = dump.Check(r); return err }); err != nil {
		return err
	}
	ctx := context.Background()
	st, err := migrated(ctx, *dsn)
	if err != nil {
		return err
	}
	if err := sealing(ctx, st, *secret); err != nil {
		return err
	}
	defer st.Close()
	var rows int
	switch err := read(func(r io.Reader) (err error) { rows, err = st.ImportStudio(ctx, h, r); return err }); {
	case errors.Is(err, store.ErrConflict):
		return errors.New("this studio, or an account of one of its teachers, is there already; nothing was changed")
	case err != nil:
		return err
	}
	_, err = fmt.Fprintf(
		out,
		"The studio is here, with %d rows. Passwords do not travel: 'ladder account reset --email …' makes a link for each teacher.\n",
		rows,
	)
	return err
}
