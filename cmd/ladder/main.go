// Command ladder is Patient Ladder: the server, the demo and the core's
// computations on the command line.
package main

import (
	"errors"
	"fmt"
	"io"
	"os"
)

const help = `usage: ladder VERB [arguments]

  demo [--dir DIR] [--port N] [--reset]   the made-up studio, with a private MariaDB
  serve --dsn DSN [--addr ADDR] [--url URL] [--smtp SERVER] [--trusted-proxy NETWORKS]
                                          the server, on a MariaDB of your own
  migrate --dsn DSN                       bring the database up to date
  account --dsn DSN --studio NAME --name NAME --email ADDRESS [--timezone ZONE]
                                          add a studio with its owner; the password is read from standard input
  account reset --dsn DSN --email ADDRESS [--url URL]
                                          a link with which somebody sets a new password, once, within thirty minutes
  secret                                  a new secret for servers: what seals links and second factors in the database
  secret --forget --dsn DSN               drop what is sealed with a secret that is lost
  key                                     a new key for backups
  backup --dsn DSN --key FILE [--to FOLDER|FILE] [--keep N]
                                          everything, encrypted; to the output where no place is given
  restore --dsn DSN --key FILE [--from FILE]
                                          a backup into an empty database
  export --dsn DSN --email OWNER          a whole studio as lines of JSON, without passwords (docs/formats.md)
  import --dsn DSN FILE                   such a studio into another database
  check --dsn DSN [--smtp SERVER] [--backups FOLDER]
                                          whether database, clock, mail and disk are as they should be
  notes [--unfold] [--tune N] FILE        the sounding notes of a MusicXML, ABC or MIDI file, as JSON; --unfold plays repeats out
  analyze [--instrument NAME] [--age YEARS] [--tune N] FILE
                                          everything that is found in a score, as JSON (docs/formats.md)
  scale KEY KIND [--octaves N]            a scale or an arpeggio with the fingers of both hands, as JSON; KIND is major, natural-minor,
                                          harmonic-minor, melodic-minor, chromatic, major- or minor-arpeggio, -broken-chord or
                                          -five-finger, or tetrachords
  exercise INSTRUMENT [ID] [--musicxml]   an exercise with its fingers, strings and bows, as JSON or MusicXML; without an ID the list
  instruments [FILE]                      the instruments, one to a line; with a file those of your own, read and checked
  exercises [FILE]                        the types of exercises, one to a line; with a file those of your own, read and checked
  version                                 which version this is, and which tables it knows

'ladder VERB --help' lists all flags of a verb. A FILE can be - for the input.

The DSN can also be given as LADDER_DSN, the secret of servers as LADDER_SECRET or --secret (a file, or what stands in one). LADDER_INSTRUMENTS names a file of instruments of your own (docs/instruments.md),
LADDER_EXERCISES one of exercises (docs/exercises.md).
`

// usageError is a mistake in the arguments; it names the right call.
type usageError string

func (u usageError) Error() string { return "usage: " + string(u) }

func main() {
	if err := run(os.Args[1:], os.Stdin, os.Stdout); err != nil && !errors.Is(err, errHelped) {
		fmt.Fprintln(os.Stderr, err)
		os.Exit(2)
	}
}

func run(args []string, in io.Reader, out io.Writer) error {
	if len(args) == 0 {
		fmt.Fprint(out, help)
		return nil
	}
	if file := os.Getenv("LADDER_INSTRUMENTS"); file != "" {
		if _, err := extend(file, in); err != nil {
			return err
		}
	}
	if file := os.Getenv("LADDER_EXERCISES"); file != "" {
		if _, err := extendExercises(file, in); err != nil {
			return err
		}
	}
	switch verb, rest := args[0], args[1:]; verb {
	case "instruments":
		return listInstruments(rest, in, out)
	case "exercises":
		return listTypes(rest, in, out)
	case "notes":
		return notes(rest, in, out)
	case "analyze":
		return analyze(rest, in, out)
	case "scale":
		return runScale(rest, out)
	case "exercise":
		return runExercise(rest, out)
	case "demo":
		return runDemo(rest, out)
	case "serve":
		return serve(rest, out)
	case "migrate":
		return migrate(rest, out)
	case "account":
		return runAccount(rest, in, out)
	case "secret":
		return runSecret(rest, out)
	case "key":
		return makeKey(rest, out)
	case "backup":
		return runBackup(rest, out)
	case "restore":
		return runRestore(rest, in, out)
	case "export":
		return runExport(rest, out)
	case "import":
		return runImport(rest, in, out)
	case "check":
		return check(rest, out)
	case "version", "--version":
		return runVersion(rest, out)
	case "help", "-h", "--help":
		_, err := fmt.Fprint(out, help)
		return err
	}
	return errors.New("there is no verb \"" + args[0] + "\"; run 'ladder help'")
}
