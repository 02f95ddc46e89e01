package wording

import (
	"fmt"
	"strings"

	"patientladder/core/library/instrument"
	"patientladder/core/planning/meeting"
	"patientladder/core/student/standing"
)

// Outcome is what came of an activity, as it stands on its button: “one step nearer each time”.
func Outcome(id string) string {
	if words, own := outcomes[id]; own {
		return words
	}
	return strings.ReplaceAll(id, "-", " ")
}

// outcomes that need other words than their own.
var outcomes = map[string]string{
	"octave": "in another octave", "spoke": "spoke it", "on-the-spot": "found it at once", "nearer-step-by-step": "nearer step by step",
	"one-extra":   "one too many",
	"one-missing": "one too few", "began-early": "began too early", "lost-the-beat": "lost the beat", "drifts": "faster or slower",
	"follows":      "follows, a little late",
	"parent-spoke": "the parent spoke", "reach": "feet are on the floor", "hang": "feet hang", "did-not-want": "did not want to",
	"can-do-both": "can do both", "can-do-one": "can do one",
	"came": "it came", "made-its-own": "made a tune up", "not-yet": "not yet", "drew-and-named": "drew and named it",
	"falls-loosely": "falls loosely",
}

// partNames are the parts of a first meeting as a teacher names them; the last is of later lessons alone.
var partNames = map[meeting.Part]string{
	"greeting": "Greeting", "listening": "Listening", "rhythm": "Rhythm", "guess": "Guessing", "draw": "Drawing", "seat": "Seat and feet",
	"hand": "Hand", "tune": "First tune", "close": "Closing",
	"lesson": "Later lessons",
}

// PartName names a part of a first meeting.
func PartName(p meeting.Part) string { return partNames[p] }

// families are the families of instruments, as a list names them.
var families = map[instrument.Family]string{
	instrument.Keyboard: "keyboard instruments", instrument.Bowed: "bowed strings", instrument.Plucked: "plucked strings",
	instrument.Wind:  "wind instruments",
	instrument.Voice: "voice", instrument.Percussion: "percussion", instrument.Other: "other instruments",
}

// FamilyName names a family of instruments.
func FamilyName(f instrument.Family) string { return families[f] }

// tried names an activity in the middle of a sentence; one that the studio has dropped is “an activity”.
func (n Names) tried(id string) string {
	if a, known := n.Meetings.Of(id); known {
		return lower(a.Name)
	}
	return "an activity"
}

// Try says what is played on a level of an activity.
func Try(a meeting.Activity, level int) string {
	n := 0
	for _, s := range a.Sounds(level) {
		if s.Length > 0 {
			n++
		}
	}
	switch a.Kind {
	case meeting.Pitch, meeting.Hidden:
		return Counted(n, "tone")
	case meeting.Rhythm:
		return Counted(n, "clap")
	case meeting.Beat:
		return []string{"slow", "faster"}[min(1, max(0, level-1))]
	}
	return ""
}

// Came says what came of a try.
func Came(m standing.Met) string {
	text := Outcome(m.Outcome)
	if m.Level > 0 {
		text = fmt.Sprintf("%d: %s", m.Level, text)
	}
	if m.Text != "" {
		text += " (" + m.Text + ")"
	}
	return text
}

// Meeting says what the first meeting is.
func Meeting(plan []meeting.Activity, minutes, done int, first string) string {
	switch {
	case len(plan) == 0 && minutes < 5:
		return "A meeting needs a few minutes. Say how long it is."
	case len(plan) == 0:
		return "No activity fits."
	case done == 0:
		return fmt.Sprintf("%s with %s, %s to do.", Capital(Counted(minutes, "minute")), first, Counted(len(plan), "thing"))
	case done >= len(plan):
		return fmt.Sprintf("All %s are done. Two things go home with %s.", Counted(len(plan), "thing"), first)
	}
	return fmt.Sprintf("%d of %s done.", done, Counted(len(plan), "thing"))
}

// stairs are the steps of ear and rhythm, as a lesson names them.
var stairs = map[string]string{
	"match": "Match a tone", "echo-two": "Echo two tones", "echo-three": "Echo three tones", "find": "Find a hidden tone",
	"sing-back": "Sing back a phrase",
	"echo-bar":  "Echo one bar", "echo-two-bars": "Echo two bars", "with-rests": "Echo a bar with a rest", "dictate": "Write a rhythm down",
}

// StairName names a step of ear or rhythm.
func StairName(id string) string {
	if name, known := stairs[id]; known {
		return name
	}
	return Capital(strings.ReplaceAll(id, "-", " "))
}

// Stairs says how far somebody is on ear and rhythm: “Ear: match a tone came; echo two tones is next (well on 1 of 2 days).”
func Stairs(places []meeting.Place) (out []string) {
	for _, p := range places {
		line := Capital(string(p.Line)) + ": "
		switch {
		case p.Last.IsZero():
			line += fmt.Sprintf("not tried yet; %s comes first.", lower(StairName(p.Stairs[0].ID)))
		case p.All():
			line += "every step came."
		default:
			if p.At > 0 {
				line += lower(StairName(p.Stairs[p.At-1].ID)) + " comes well; "
			}
			line += fmt.Sprintf("%s is next, well on %d of %s so far.", lower(StairName(p.Stairs[p.At].ID)), p.Days, Figures(p.Of, "day"))
		}
		out = append(out, line)
	}
	return out
}
