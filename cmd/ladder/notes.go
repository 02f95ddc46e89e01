package main

import (
	"encoding/json"
	"errors"
	"fmt"
	"io"
	"os"
	"path/filepath"

	"patientladder/core/library/instrument"
	"patientladder/core/notation/score"
	"patientladder/core/notation/scorefile"
	"patientladder/core/reading/analysis"
	"patientladder/core/reading/chunk"
	"patientladder/core/reading/demand"
)

// longest is how many bars --unfold plays at the most.
const longest = 100_000

// scoreArgs are the arguments of the verbs that read a score.
type scoreArgs struct {
	*verb
	// tune counts from 1, for files with several.
	tune *int
}

func scoreVerb(name, says string, out io.Writer) scoreArgs {
	f := flags(name, says, out).wants("FILE", 1, 1)
	return scoreArgs{f, f.Int("tune", 1, "which piece of a file with several, from 1")}
}

// most is the highest number that a tune or an age is taken for.
const most = 1000

func inRange(name string, n int) error {
	if n < 1 || n > most {
		return usageError(fmt.Sprintf("--%s is between 1 and %d, not %d", name, most, n))
	}
	return nil
}

// notes prints the sounding notes of a score as JSON.
func notes(args []string, in io.Reader, out io.Writer) error {
	a := scoreVerb(
		"notes",
		"Writes the sounding notes of a MusicXML, ABC or MIDI file as JSON (docs/formats.md). FILE is - for the input.",
		out,
	)
	unfold := a.Bool("unfold", false, "play the repeats out")
	if err := a.read(args); err != nil {
		return err
	}
	if err := inRange("tune", *a.tune); err != nil {
		return err
	}
	data, name, err := load(a.given[0], in)
	if err != nil {
		return err
	}
	_, pieces, err := scorefile.Read(data)
	if err != nil {
		return fmt.Errorf("%s: %w", name, err)
	}
	sc, err := a.choose(name, pieces)
	if err != nil {
		return err
	}
	sounding := sc.Sounding()
	if *unfold {
		sounding = sc.Unfolded(longest)
	}
	if len(sounding) == 0 {
		return fmt.Errorf("%s: no note of it sounds", name)
	}
	return json.NewEncoder(out).Encode(sounding)
}

// analyze prints everything that is found in a score as JSON.
func analyze(args []string, in io.Reader, out io.Writer) error {
	a := scoreVerb("analyze", "Writes everything that is found in a score as JSON (docs/formats.md). FILE is - for the input.", out)
	player, age := a.String("instrument", "piano", "whose part it is"), a.Int("age", 7, "of the student, in `years`")
	if err := a.read(args); err != nil {
		return err
	}
	if err := errors.Join(inRange("tune", *a.tune), inRange("age", *age)); err != nil {
		return err
	}
	family, known := instrument.FamilyOf(*player)
	if !known {
		return fmt.Errorf("%q is not an instrument that is known; try piano, cello or ukulele", *player)
	}
	data, name, err := load(a.given[0], in)
	if err != nil {
		return err
	}
	_, pieces, err := scorefile.Pieces(data, family == instrument.Keyboard)
	if err != nil {
		return fmt.Errorf("%s: %w", name, err)
	}
	sc, err := a.choose(name, pieces)
	if err != nil {
		return err
	}
	_, table, err := demand.Shipped()
	if err != nil {
		return err
	}
	p := analysis.Of(sc, *player)
	return json.NewEncoder(out).Encode(p.Report(chunk.LeafBars(*age), nil, table.Find(p)))
}

// load reads a file, or the input for -, within the limits of a score; name is what it is called in messages.
func load(file string, in io.Reader) (data []byte, name string, err error) {
	limit := int64(score.DefaultLimits().Bytes)
	if file != "-" {
		info, err := os.Stat(file)
		switch {
		case errors.Is(err, os.ErrNotExist):
			return nil, file, fmt.Errorf("%s: there is no such file", file)
		case err != nil:
			return nil, file, err
		case info.IsDir():
			return nil, file, fmt.Errorf("%s: this is a folder, not a file", file)
		case info.Size() > limit:
			return nil, file, fmt.Errorf("%s: the file has %d MB; a score may have %d MB at most", filepath.Base(file), info.Size()>>20, limit>>20)
		}
	}
	r, name, err := input(file, in)
	if err != nil {
		return nil, name, err
	}
	defer r.Close()
	if file != "-" {
		name = filepath.Base(file)
	}
	data, err = io.ReadAll(io.LimitReader(r, limit+1))
	if err == nil && int64(len(data)) > limit {
		err = fmt.Errorf("%s: it has more than %d MB; a score may have %d MB at most", name, limit>>20, limit>>20)
	}
	return data, name, err
}

// choose picks the tune that was asked for.
func (a scoreArgs) choose(name string, pieces []*score.Score) (*score.Score, error) {
	if *a.tune > len(pieces) {
		return nil, fmt.Errorf("%s: the file holds %d pieces; there is no number %d", name, len(pieces), *a.tune)
	}
	return pieces[*a.tune-1], nil
}
