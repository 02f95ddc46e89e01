package main

import (
	"context"
	"errors"
	"fmt"
	"io"
	"os"
	"syscall"
	"time"

	"patientladder/clock"
	"patientladder/home/post"
)

const (
	// clockMayDiffer is how far the clocks of the server and the database may be apart, leastSpace what should be free.
	clockMayDiffer = 2 * time.Second
	leastSpace     = 2 << 30
)

// check looks at everything that a server needs, and says of each whether it is well.
func check(args []string, out io.Writer) error {
	f := flags("check", "Says of everything that a server needs whether it is well, and how to mend what is not.", out)
	dsn := dsnFlag(f)
	smtp := f.String("smtp", os.Getenv("LADDER_SMTP"), "the mail server")
	secret := secretFlag(f)
	folder := f.String("backups", "", "the folder of the backups")
	if err := f.read(args); err != nil {
		return err
	}
	ctx, cancel := context.WithTimeout(context.Background(), 30*time.Second)
	defer cancel()
	bad := 0
	say := func(what string, err error, well string) {
		if err != nil {
			bad++
			fmt.Fprintf(out, "WRONG  %s: %v\n", what, err)
			return
		}
		fmt.Fprintf(out, "well   %s: %s\n", what, well)
	}
	st, err := opened(ctx, *dsn)
	say("database", err, "it answers")
	if err == nil {
		defer st.Close()
		say("text", st.Text(ctx), "every script is kept")
		say("grants", st.Grants(ctx), "tables can be made, changed and taken away")
		behind, err := st.Pending(ctx)
		say(
			"tables",
			err,
			map[bool]string{true: "up to date", false: fmt.Sprintf("%d changes wait; the next start makes them", behind)}[behind == 0],
		)
		if *secret == "" {
			fmt.Fprintln(out, "none   secret: links and second factors are kept as they are; 'ladder secret' makes one for LADDER_SECRET")
		} else {
			given, err := secretOf(*secret)
			if err == nil {
				err = st.Opens(ctx, given)
			}
			say("secret", err, "it opens what is sealed")
		}
		off, err := st.ClockOff(ctx, clock.Real)
		if err == nil && (off > clockMayDiffer || off < -clockMayDiffer) {
			err = fmt.Errorf("the database is %s off the clock of this machine; set both by NTP", off.Round(time.Millisecond))
		}
		say("clock", err, "the database and this machine agree")
	}
	if *smtp == "" {
		fmt.Fprintln(out, "none   mail: no server is set; messages stay in the mailbox, and a password is recovered with 'ladder account reset'")
	} else {
		server, err := post.Parse(*smtp)
		if err == nil {
			err = server.Reach(ctx)
		}
		say("mail", err, "the server lets us in")
	}
	if *folder != "" {
		var disk syscall.Statfs_t
		err := syscall.Statfs(*folder, &disk)
		free := uint64(disk.Bavail) * uint64(disk.Bsize)
		if err == nil && free < leastSpace {
			err = fmt.Errorf("only %d MB are free", free>>20)
		}
		say("disk", err, fmt.Sprintf("%d GB are free", free>>30))
	}
	if bad > 0 {
		return errors.New("not everything is well")
	}
	return nil
}
