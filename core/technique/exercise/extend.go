package exercise

import (
	"bytes"
	"encoding/json"
	"errors"
	"fmt"
	"io"
	"maps"
	"slices"
	"strings"

	"patientladder/core/library/instrument"
	"patientladder/core/technique/bowed"
)

// own is a file of a studio's own exercises.
type own struct {
	// Bows are bow plans, Types types of exercises; one that is "like" another takes over what it does not say itself.
	Bows  []json.RawMessage `json:"bows"`
	Types []json.RawMessage `json:"types"`
}

// Extend adds the bow plans and types of exercises of a file of a studio's own to those that ship, before anything is asked of
// them; one that is there already is replaced. It adds all of them or, where one is wrong, none, and says which, with its line.
// Skill says whether there is a skill of an id. The returned function takes them out again.
func Extend(data []byte, skill func(id string) bool) (undo func(), err error) {
	var file own
	if err := strictly(data, &file); err != nil {
		return nil, fmt.Errorf("exercises: %w", err)
	}
	at := placed(data)
	var bows []bowed.Plan
	for i, raw := range file.Bows {
		var p bowed.Plan
		err := strictly(raw, &p)
		if err == nil {
			err = p.Check()
		}
		if err != nil {
			return nil, fmt.Errorf("exercises, %s: %w", at("bows", i, p.ID), err)
		}
		bows = append(bows, p)
	}
	noBows, err := bowed.ExtendPlans(bows)
	if err != nil {
		return nil, err
	}
	before := types
	undo = func() { noBows(); types = before; found.Clear() }
	for i, raw := range file.Types {
		t, err := typeFrom(raw, types)
		if err == nil && !slices.ContainsFunc(before, func(o Type) bool { return o.Make == t.Make }) {
			err = fmt.Errorf("no rule makes %q", t.Make) // each rule has a type that ships
		}
		if err == nil {
			types = append(slices.DeleteFunc(slices.Clone(types), func(o Type) bool { return o.ID == t.ID }), t)
			found.Clear()
			err = playable(t, skill)
		}
		if err != nil {
			undo()
			return nil, fmt.Errorf("exercises, %s: %w", at("types", i, t.ID), err)
		}
	}
	return undo, nil
}

// typeFrom is one type of a file, with what it takes over from the one that it is like.
func typeFrom(raw json.RawMessage, there []Type) (Type, error) {
	var fields map[string]json.RawMessage
	if err := json.Unmarshal(raw, &fields); err != nil {
		return Type{}, errors.New("a type is an object, as {\"id\": …}")
	}
	var like string
	if err := json.Unmarshal(fields["like"], &like); fields["like"] != nil {
		delete(fields, "like")
		i := slices.IndexFunc(there, func(t Type) bool { return t.ID == like })
		if err != nil || i < 0 {
			return Type{}, fmt.Errorf("it is like %q, which is not there", like)
		}
		whole, err := json.Marshal(there[i])
		if err != nil {
			return Type{}, err
		}
		all := map[string]json.RawMessage{}
		if err := json.Unmarshal(whole, &all); err != nil {
			return Type{}, err
		}
		maps.Copy(all, fields)
		fields = all
	}
	whole, err := json.Marshal(fields)
	if err != nil {
		return Type{}, err
	}
	var t Type
	return t, strictly(whole, &t)
}

// playable says what is wrong with a type that was added, or returns nil: what the ones that ship are held to, its skills, and
// that on every step some instrument of its families has an exercise.
func playable(t Type, skill func(id string) bool) (err error) {
	defer func() {
		if broken := recover(); broken != nil { // a rule met figures that it was not made for
			err = fmt.Errorf("the rule %q cannot make it: %v", t.Make, broken)
		}
	}()
	if err := checkTypes(types); err != nil {
		return errors.New(strings.TrimPrefix(err.Error(), "exercises: "))
	}
	wanted := slices.Clone(t.Plants)
	for _, s := range t.Steps {
		wanted = slices.AppendSeq(wanted, maps.Keys(s.Gives))
	}
	slices.Sort(wanted)
	for _, id := range wanted {
		if !skill(id) {
			return fmt.Errorf("there is no skill %q", id)
		}
	}
	if len(t.Families) == 0 {
		return errors.New("it names no family of instruments")
	}
	for _, s := range t.Steps {
		made, why := 0, error(nil)
		for _, x := range instrument.All() {
			if !slices.Contains(t.Families, x.Family) {
				continue
			}
			for _, e := range Places(Exercise{Type: t, Step: s, Instrument: x}) {
				if _, why = e.Build(); why == nil {
					made++
					break
				}
			}
		}
		if made == 0 {
			if why == nil {
				why = errors.New("no instrument of its families has a place for it")
			}
			return fmt.Errorf("the step %q: %w", s.ID, why)
		}
	}
	return nil
}

// strictly reads JSON that has no fields but those of a form.
func strictly(data []byte, to any) error {
	d := json.NewDecoder(bytes.NewReader(data))
	d.DisallowUnknownFields()
	err := d.Decode(to)
	var syntax *json.SyntaxError
	var wrong *json.UnmarshalTypeError
	switch {
	case errors.As(err, &syntax):
		return fmt.Errorf("line %d: %s", lineAt(data, syntax.Offset), syntax.Error())
	case errors.As(err, &wrong):
		return fmt.Errorf("%q cannot be a %s", wrong.Field, wrong.Value)
	case errors.Is(err, io.ErrUnexpectedEOF):
		return errors.New("the file ends in the middle")
	case err != nil:
		return errors.New(strings.TrimPrefix(err.Error(), "json: "))
	}
	return nil
}

func lineAt(data []byte, offset int64) int {
	return 1 + bytes.Count(data[:min(int(offset), len(data))], []byte("\n"))
}

// placed says where an entry of a list of the file stands: its line, and its id where it has one.
func placed(data []byte) func(list string, i int, id string) string {
	lines := map[string][]int{}
	d := json.NewDecoder(bytes.NewReader(data))
	if _, err := d.Token(); err == nil {
		for d.More() {
			name, err := d.Token()
			if err != nil {
				break
			}
			if _, err := d.Token(); err != nil {
				break
			}
			for d.More() {
				var entry json.RawMessage
				if d.Decode(&entry) != nil {
					break
				}
				lines[fmt.Sprint(name)] = append(lines[fmt.Sprint(name)], lineAt(data, d.InputOffset()-int64(len(entry))))
			}
			if _, err := d.Token(); err != nil {
				break
			}
		}
	}
	return func(list string, i int, id string) string {
		where := fmt.Sprintf("entry %d of %s", i+1, list)
		if i < len(lines[list]) {
			where = fmt.Sprintf("line %d", lines[list][i])
		}
		if id != "" {
			where += " (" + id + ")"
		}
		return where
	}
}
