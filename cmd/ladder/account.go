package main

import (
	"bufio"
	"context"
	"errors"
	"fmt"
	"io"
	"os"
	"strings"
	"time"

	"github.com/oklog/ulid/v2"

	"patientladder/account"
	apiaccount "patientladder/api/account"
	"patientladder/clock"
	"patientladder/core/wording"
	"patientladder/store"
)

func runAccount(args []string, in io.Reader, out io.Writer) error {
	if len(args) > 0 && args[0] == "reset" {
		return resetAccount(args[1:], out)
	}
	return addAccount(args, in, out)
}

func addAccount(args []string, in io.Reader, out io.Writer) error {
	f := flags(
		"account",
		"Adds a studio with its owner; the password is the first line of the input. 'ladder account reset' makes a link for a new one.",
		out,
	)
	dsn := dsnFlag(f)
	studio, name := f.String("studio", "", "name of the studio"), f.String("name", "", "name of the teacher")
	email, zone := f.String("email", "", "address to sign in with"), f.String("timezone", "UTC", "IANA time zone of the lessons")
	if err := f.read(args); err != nil {
		return err
	}
	if *studio == "" || *name == "" || !strings.Contains(*email, "@") {
		return usageError("ladder account needs --studio, --name and --email")
	}
	if _, err := time.LoadLocation(*zone); err != nil {
		return fmt.Errorf("%q is not a time zone such as Europe/Lisbon", *zone)
	}
	password, err := bufio.NewReader(in).ReadString('\n')
	if err != nil && !errors.Is(err, io.EOF) {
		return err
	}
	password = strings.TrimRight(password, "\r\n")
	if password == "" {
		return errors.New("give the password on standard input, as the first line")
	}
	if err := account.Check(password, *email, *name, *studio); err != nil {
		return err
	}
	hash, err := account.HashPassword(password)
	if err != nil {
		return err
	}
	ctx := context.Background()
	st, err := migrated(ctx, *dsn)
	if err != nil {
		return err
	}
	defer st.Close()
	err = st.AddStudio(ctx, store.Studio{ID: ulid.Make().String(), Name: *studio, Timezone: *zone, Told: wording.LastMove()},
		store.Teacher{ID: ulid.Make().String(), Email: strings.ToLower(*email), Name: *name, PasswordHash: hash, Role: string(account.Owner)})
	if errors.Is(err, store.ErrConflict) {
		return fmt.Errorf("%s has an account already", *email)
	}
	if err != nil {
		return err
	}
	_, err = fmt.Fprintf(out, "%s can sign in now.\n", *email)
	return err
}

// resetAccount makes a link with which somebody sets a new password, for whoever runs the server.
func resetAccount(args []string, out io.Writer) error {
	f := flags("account reset", "Makes a link with which somebody sets a new password, once, within thirty minutes.", out)
	dsn, email := dsnFlag(f), f.String("email", "", "address of the account")
	url := f.String("url", os.Getenv("LADDER_URL"), "the address of the page")
	secret := secretFlag(f)
	if err := f.read(args); err != nil {
		return err
	}
	if *email == "" {
		return usageError("ladder account reset needs --email")
	}
	if *url == "" {
		*url = "http://127.0.0.1:7320"
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
	t, err := st.TeacherByEmail(ctx, strings.ToLower(strings.TrimSpace(*email)))
	if errors.Is(err, store.ErrNotFound) {
		return fmt.Errorf("%s has no account", *email)
	}
	if err != nil {
		return err
	}
	link, err := apiaccount.NewLink(ctx, st, t, clock.Real(), strings.TrimSuffix(*url, "/"))
	if err != nil {
		return err
	}
	_, err = fmt.Fprintf(out, "This link sets a new password for %s, once, within thirty minutes:\n%s\n", t.Email, link)
	return err
}
