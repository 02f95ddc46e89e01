package main

import (
	"errors"
	"flag"
	"fmt"
	"io"
	"os"
	"strings"
)

// verb is what a verb is called with.
type verb struct {
	*flag.FlagSet
	name string
	// words are its arguments beside the flags as help writes them, least and most how many there are.
	words       string
	least, most int
	// says is what it does.
	says string
	out  io.Writer
	// given are the arguments beside the flags.
	given []string
}

// flags begins a verb without arguments beside its flags; wants names some.
func flags(name, says string, out io.Writer) *verb {
	v := &verb{FlagSet: flag.NewFlagSet("ladder "+name, flag.ContinueOnError), name: name, says: says, out: out}
	v.SetOutput(io.Discard)
	return v
}

func (v *verb) wants(words string, least, most int) *verb {
	v.words, v.least, v.most = words, least, most
	return v
}

// errHelped says that help was asked for and given.
var errHelped = errors.New("help was given")

// read reads the arguments; flags stand before, between or after words, and - is a word. With --help it says what the verb
// takes and returns errHelped.
func (v *verb) read(args []string) error {
	v.given = nil
	for {
		if err := v.Parse(args); errors.Is(err, flag.ErrHelp) {
			v.help()
			return errHelped
		} else if err != nil {
			return usageError(fmt.Sprintf("%s: %s; 'ladder %s --help' says what there is", v.Name(), err, v.name))
		}
		if v.NArg() == 0 {
			break
		}
		v.given, args = append(v.given, v.Arg(0)), v.Args()[1:]
	}
	switch n := len(v.given); {
	case n > v.most && v.most == 0:
		return usageError(fmt.Sprintf("%s takes no words beside its flags, and was given %q", v.Name(), v.given[0]))
	case n < v.least || n > v.most:
		return usageError(v.line())
	}
	return nil
}

func (v *verb) line() string {
	out := v.Name()
	v.VisitAll(func(f *flag.Flag) {
		kind, _ := flag.UnquoteUsage(f)
		out += " [--" + strings.TrimSpace(f.Name+" "+strings.ToUpper(kind)) + "]"
	})
	return strings.TrimSpace(out + " " + v.words)
}

func (v *verb) help() {
	fmt.Fprintf(v.out, "usage: %s\n\n%s\n", v.line(), v.says)
	first := true
	v.VisitAll(func(f *flag.Flag) {
		if first {
			fmt.Fprintln(v.out)
			first = false
		}
		kind, says := flag.UnquoteUsage(f)
		name := strings.TrimSpace(f.Name + " " + strings.ToUpper(kind))
		if f.DefValue != "" && f.DefValue != "false" && f.DefValue != "0" && !secretFlags[f.Name] {
			says += " (default " + f.DefValue + ")"
		}
		fmt.Fprintf(v.out, "  --%-22s %s\n", name, says)
	})
}

// secretFlags have defaults from the environment that nobody should read over a shoulder.
var secretFlags = map[string]bool{"dsn": true, "smtp": true, "secret": true, "key": true}

// input opens a file, or the input for -; name is what it is called in messages.
func input(file string, in io.Reader) (r io.ReadCloser, name string, err error) {
	if file == "-" {
		return io.NopCloser(in), "the input", nil
	}
	f, err := os.Open(file)
	if errors.Is(err, os.ErrNotExist) {
		err = fmt.Errorf("%s: there is no such file", file)
	}
	return f, file, err
}
