package main

import (
	"context"
	"fmt"
	"io"
	"os"
	"path/filepath"
	"strings"

	"patientladder/store"
)

func secretFlag(f *verb) *string {
	return f.String("secret", os.Getenv("LADDER_SECRET"), "what seals links and second factors in the database: a file, or what stands in one")
}

// secretOf reads a secret from a file, or from what stands in one; nil for none.
func secretOf(given string) (*store.Secret, error) {
	if given == "" {
		return nil, nil
	}
	if strings.HasPrefix(given, "PATIENT-LADDER-SECRET-") {
		return store.ParseSecret(given)
	}
	data, err := os.ReadFile(given)
	if err != nil {
		return nil, fmt.Errorf("the secret: %w", err)
	}
	out, err := store.ParseSecret(string(data))
	if err != nil {
		return nil, fmt.Errorf("%s: %w", given, err)
	}
	return out, nil
}

// sealing gives a database the secret, or closes it.
func sealing(ctx context.Context, st *store.Store, given string) error {
	secret, err := secretOf(given)
	if err == nil {
		_, err = st.Seal(ctx, secret)
	}
	if err != nil {
		st.Close()
	}
	return err
}

// demoSecret is the secret of a demo, made with its folder.
func demoSecret(dir string) (*store.Secret, error) {
	name := filepath.Join(dir, "seal")
	data, err := os.ReadFile(name)
	if os.IsNotExist(err) {
		data = []byte(store.NewSecret())
		err = os.WriteFile(name, data, 0o600)
	}
	if err != nil {
		return nil, err
	}
	return store.ParseSecret(string(data))
}

// runSecret writes a new secret, or drops what is sealed with one that is lost.
func runSecret(args []string, out io.Writer) error {
	f := flags("secret", "Writes a new secret for the servers of one database: what seals links and second factors.", out)
	dsn, forget := dsnFlag(f), f.Bool("forget", false, "drop what is sealed with a secret that is lost")
	if err := f.read(args); err != nil {
		return err
	}
	if !*forget {
		_, err := fmt.Fprint(out, store.NewSecret())
		return err
	}
	ctx := context.Background()
	st, err := migrated(ctx, *dsn)
	if err != nil {
		return err
	}
	defer st.Close()
	if err := st.DropSealed(ctx); err != nil {
		return err
	}
	_, err = fmt.Fprintln(out, "What was sealed is gone: make the links of families and of calendars anew; second factors are off.")
	return err
}
