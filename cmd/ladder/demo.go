package main

import (
	"context"
	"errors"
	"fmt"
	"io"
	"net"
	"os"
	"os/signal"
	"path/filepath"
	"strings"
	"syscall"
	"time"
	_ "time/tzdata" // the demo runs where no zone files are installed

	"patientladder/account"
	"patientladder/api"
	"patientladder/clock"
	"patientladder/demo"
	"patientladder/store"
	"patientladder/store/localdb"
	"patientladder/web"
)

// mostDemoStudents is the most that a made-up studio has.
const mostDemoStudents = 200

// demoSeed fixes the simulated lessons.
const demoSeed = 7

// runDemo starts the made-up studio on a private MariaDB. What is entered
// stays in the folder until --reset.
func runDemo(args []string, out io.Writer) error {
	f := flags("demo", "Runs the made-up studio with a private MariaDB. What you enter stays in its folder.", out)
	dir := f.String("dir", filepath.Join(".run", "demo"), "where the demo keeps its data")
	port := f.Int("port", 7320, "the port to listen on; another is taken when it is in use")
	from := f.String("clock", "", "begin at this local time, such as 2026-05-04T15:30, and not now")
	reset := f.Bool("reset", false, "throw away what was entered and begin anew")
	students := f.Int("students", 0, "fill the roll up to so many students, at most 200; keeps its data in a folder of its own")
	empty := f.Bool("empty", false, "an empty studio; keeps its data in a folder of its own")
	if err := f.read(args); err != nil {
		return err
	}
	if *students < 0 || *students > mostDemoStudents || *empty && *students > 0 {
		return usageError(fmt.Sprintf("--students is at most %d, and not together with --empty", mostDemoStudents))
	}
	switch {
	case *empty:
		*dir += "-empty"
	case *students > 0:
		*dir += fmt.Sprintf("-%d", *students)
	}
	now := clock.Clock(clock.Real)
	if *from != "" {
		start, err := clock.Parse(*from, localZone())
		if err != nil {
			return usageError(err.Error())
		}
		now = clock.From(start, 1)
	}
	ctx, stop := signal.NotifyContext(context.Background(), os.Interrupt, syscall.SIGTERM)
	defer stop()
	if *reset {
		if err := localdb.Remove(*dir); err != nil {
			return err
		}
	}
	db, err := localdb.Start(ctx, *dir)
	if err != nil {
		return err
	}
	defer db.Stop()
	st, err := migrated(ctx, db.DSN)
	if err != nil {
		return err
	}
	defer st.Close()
	secret, err := demoSecret(*dir)
	if err != nil {
		return err
	}
	if _, err := st.Seal(ctx, secret); err != nil {
		return err
	}
	if err := seedOnce(ctx, st, now(), demo.Options{Students: *students, Empty: *empty}, out); err != nil {
		return err
	}
	l, err := net.Listen("tcp", fmt.Sprintf("127.0.0.1:%d", *port))
	if err != nil {
		taken := *port
		if l, err = net.Listen("tcp", "127.0.0.1:0"); err != nil {
			return err
		}
		fmt.Fprintf(out, "Port %d is taken by another program; this demo listens on another one.\n", taken)
	}
	// Passkeys belong to a name; a number has none.
	_, at, err := net.SplitHostPort(l.Addr().String())
	if err != nil {
		return err
	}
	address := "http://localhost:" + at
	go sweep(ctx, st, now)
	go printLetters(ctx, st, out, now)
	fmt.Fprintf(
		out,
		"\n  Patient Ladder   %s\n  sign in with     %s\n  password         %s\n\n  Ctrl-C stops it; what you enter stays in %s. Begin anew with: %s\n\n",
		address,
		demo.Email,
		demo.Password,
		*dir,
		anew(args),
	)
	return listen(ctx, l, api.Config{Store: st, Page: web.Page(), Now: now, URL: address, Letters: true})
}

// anew is the call that throws this demo's data away and begins it again.
func anew(args []string) string {
	if len(args) == 0 {
		return "make demo-reset"
	}
	words := []string{os.Args[0], "demo"}
	for _, a := range args {
		if a == "--reset" || a == "-reset" {
			continue
		}
		if strings.ContainsAny(a, " '\"\\$") {
			a = "'" + strings.ReplaceAll(a, "'", `'\''`) + "'"
		}
		words = append(words, a)
	}
	return strings.Join(append(words, "--reset"), " ")
}

// seedOnce fills an empty database with the demo studio, all of it or nothing: an interrupted filling is begun again at the
// next start. It is done when the demo's teacher exists.
func seedOnce(ctx context.Context, st *store.Store, now time.Time, o demo.Options, out io.Writer) error {
	_, err := st.TeacherByEmail(ctx, demo.Email)
	if !errors.Is(err, store.ErrNotFound) {
		return err
	}
	fmt.Fprintln(out, "Making the demo studio …")
	hash, err := account.HashPassword(demo.Password)
	if err != nil {
		return err
	}
	zone := localZone()
	o.Day, o.Timezone, o.PasswordHash, o.Seed = clock.Day(now, zone), zone, hash, demoSeed
	return demo.Make(ctx, st, o)
}

// localZone is the machine's IANA time zone, or UTC where it does not say.
func localZone() string {
	target, err := os.Readlink("/etc/localtime")
	if err != nil {
		return "UTC"
	}
	_, name, found := strings.Cut(target, "zoneinfo/")
	if _, err := time.LoadLocation(name); !found || err != nil {
		return "UTC"
	}
	return name
}
