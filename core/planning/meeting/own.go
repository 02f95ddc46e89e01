package meeting

import (
	"errors"
	"fmt"
	"slices"
	"strings"
	"unicode/utf8"

	"patientladder/core/library/instrument"
)

// Own is an activity as a studio writes it: one that ships, changed or left out, or one of the studio's own.
type Own struct {
	ID, Name string
	// Say is what the teacher says.
	Say     string
	Minutes int
	// From and To are the ages that it is for.
	From, To int
	// Off says that the studio does not use it in a first meeting.
	Off bool
	// Part, Family, Shows and Home are those of a studio's own; what ships keeps its own. Family is the family of instruments
	// that it is for, empty for all; Shows is the skill that it shows when it came, Home the goal of the pool that it becomes
	// at home; empty for none.
	Part   Part
	Family instrument.Family
	Shows  string
	Home   string
}

// The outcomes of a studio's own activity.
var ownOutcomes = []string{"came", "nearly", "not-yet"}

// Parts are those of a meeting in their order.
func Parts() []Part { return slices.Clone(parts) }

// Over returns the activities with the studio's own in them. What ships keeps what it plays, what can come of it and what that
// shows; what the studio has added comes before what ships in the same part, because it was added to be used.
func (set Set) Over(own []Own) Set {
	out := slices.Clone(set)
	var added Set
	for _, o := range own {
		i := slices.IndexFunc(out, func(a Activity) bool { return a.ID == o.ID })
		if i < 0 {
			added = append(added, o.activity())
			continue
		}
		a := &out[i]
		a.Name, a.Say, a.Minutes, a.From, a.To, a.Off = o.Name, o.Say, o.Minutes, o.From, o.To, o.Off
	}
	return append(added, out...)
}

func (o Own) activity() Activity {
	a := Activity{
		ID: o.ID, Part: o.Part, Name: o.Name, Say: o.Say, Minutes: o.Minutes, From: o.From, To: o.To, Off: o.Off, Home: o.Home,
		Outcomes: ownOutcomes, Good: ownOutcomes[:1],
	}
	if o.Family != "" {
		a.Families = []instrument.Family{o.Family}
	}
	if o.Shows != "" {
		a.Skills = map[string]string{ownOutcomes[0]: o.Shows}
	}
	return a
}

const (
	// longestName and longestSay are letters, mostMinutes how long an activity may be, oldest an age.
	longestName, longestSay = 80, 300
	mostMinutes             = 30
	oldest                  = 120
)

// Check says in a sentence what is wrong with an activity, or returns nil. skill and goal say what the studio knows; what ships
// is looked up in set.
func (o Own) Check(set Set, skill, goal func(id string) bool) error {
	_, ships := set.Of(o.ID)
	families := instrument.Families()
	switch {
	case strings.TrimSpace(o.Name) == "" || utf8.RuneCountInString(o.Name) > longestName:
		return fmt.Errorf("an activity needs a name of at most %d letters", longestName)
	case strings.TrimSpace(o.Say) == "" || utf8.RuneCountInString(o.Say) > longestSay:
		return fmt.Errorf("write what you say, in at most %d letters", longestSay)
	case o.Minutes < 1 || o.Minutes > mostMinutes:
		return fmt.Errorf("an activity takes 1 to %d minutes", mostMinutes)
	case o.From < 0 || o.To > oldest || o.From > o.To:
		return fmt.Errorf("the ages must lie between 0 and %d, the first not above the last", oldest)
	case ships:
		return nil
	case !slices.Contains(parts, o.Part):
		return errors.New("choose the part of the meeting that it belongs to")
	case o.Family != "" && !slices.Contains(families, o.Family):
		return errors.New("choose a family of instruments that there is, or any")
	case o.Shows != "" && !skill(o.Shows):
		return errors.New("the skill that it shows is not in the list of skills")
	case o.Home != "" && !goal(o.Home):
		return errors.New("what it becomes at home is not among your activities")
	}
	return nil
}

// Form is an activity as a studio can change it.
type Form struct {
	Own
	// Ships says that it comes with the program, Changed that the studio has changed it or left it out.
	Ships, Changed bool
	// Outcomes are what can come of it.
	Outcomes []string
}

// Forms are the activities of a studio, in the order of a meeting, as it can change them; own are those that it has written.
// What happens only in later lessons comes last.
func (set Set) Forms(own []Own) []Form {
	out := make([]Form, 0, len(set))
	for _, a := range set {
		_, ships := Shipped().Of(a.ID)
		f := Form{
			Own:   Own{ID: a.ID, Name: a.Name, Say: a.Say, Minutes: a.Minutes, From: a.From, To: a.To, Off: a.Off, Part: a.Part, Home: a.Home},
			Ships: ships, Changed: ships && slices.ContainsFunc(own, func(o Own) bool { return o.ID == a.ID }), Outcomes: a.Outcomes,
		}
		if !ships {
			f.Shows = a.Skills[ownOutcomes[0]]
			if len(a.Families) > 0 {
				f.Family = a.Families[0]
			}
		}
		out = append(out, f)
	}
	place := func(p Part) int {
		if i := slices.Index(parts, p); i >= 0 {
			return i
		}
		return len(parts)
	}
	slices.SortStableFunc(out, func(x, y Form) int { return place(x.Part) - place(y.Part) })
	return out
}
