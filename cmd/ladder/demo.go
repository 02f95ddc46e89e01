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

	"patientladder/api"
	"patientladder/clock"
	"patientladder/demo"
	"patientladder/store"
	"patientladder/store/localdb"
	"patientladder/web"
)

// demoSeed fixes the simulated lessons.
const demoSeed = 7

// runDemo starts the made-up studio on a private MariaDB. What is entered
// stays in the folder until --reset.
func runDemo(args []string, out io.Writer) error {
	f := flags("demo")
	dir := f.String("dir", filepath.Join(".run", "demo"), "where the demo keeps its data")
	port := f.Int("port", 7320, "the port to listen on; another is taken when it is in use")
	from := f.String("clock", "", "begin at this local time, such as 2026-05-04T15:30, and not now")
	reset := f.Bool("reset", false, "throw away what was entered and begin anew")
	if err := f.Parse(args); err != nil {
		return usageError(err.Error())
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
	if err := seedOnce(ctx, st, now(), out); err != nil {
		return err
	}
	l, err := net.Listen("tcp", fmt.Sprintf("127.0.0.1:%d", *port))
	if err != nil {
		if l, err = net.Listen("tcp", "127.0.0.1:0"); err != nil {
			return err
		}
	}
	fmt.Fprintf(out, "\n  Patient Ladder   http://%s\n  sign in with     %s\n  password         %s\n\n  Ctrl-C stops it; what you enter stays. 'make demo-reset' begins anew.\n\n",
		l.Addr(), demo.Email, demo.Password)
	return listen(ctx, l, api.Config{Store: st, Page: web.Page(), Now: now, URL: "http://" + l.Addr().String()})
}

// seedOnce fills an empty database with the demo studio. It is done when the
// demo's teacher exists; an interrupted filling is begun anew with --reset.
func seedOnce(ctx context.Context, st *store.Store, now time.Time, out io.Writer) error {
	_, err := st.TeacherByEmail(ctx, demo.Email)
	if !errors.Is(err, store.ErrNotFound) {
		return err
	}
	fmt.Fprintln(out, "Making the demo studio …")
	hash, err := api.HashPassword(demo.Password)
	if err != nil {
		return err
	}
	zone := localZone()
	return demo.Make(ctx, st, demo.Options{Day: clock.Day(now, zone), Timezone: zone, PasswordHash: hash, Seed: demoSeed})
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
