package answer

import (
	"patientladder/api/contract"
	"patientladder/core/planning/meeting"
	"patientladder/core/student/standing"
	"patientladder/core/wording"
)

// Activity translates something to do with its tries; level is that of the next, steps what follows each outcome.
func Activity(a meeting.Activity, level int, steps []meeting.Step, came []standing.Met) contract.MeetingActivity {
	out := contract.MeetingActivity{
		Id: a.ID, Part: string(a.Part), Name: a.Name, Say: a.Say, Minutes: a.Minutes, Kind: contract.MeetingActivityKind(a.Kind),
		Outcomes: []contract.Choice{},
		Tries:    []contract.MeetingTry{}, Level: level, Next: []contract.MeetingStep{}, Came: []string{},
	}
	for _, o := range a.Outcomes {
		out.Outcomes = append(out.Outcomes, contract.Choice{Id: o, Name: wording.Outcome(o)})
	}
	for level := 1; level <= a.Levels(); level++ {
		try := contract.MeetingTry{Level: level, Words: wording.Try(a, level), Sounds: []contract.SoundNote{}}
		for _, s := range a.Sounds(level) {
			try.Sounds = append(try.Sounds, contract.SoundNote{At: s.At, Length: s.Length, Midi: s.MIDI, Bar: 1})
		}
		out.Tries = append(out.Tries, try)
	}
	for _, s := range steps {
		out.Next = append(out.Next, contract.MeetingStep{Level: s.Level, Outcome: s.Outcome, Next: s.Then})
	}
	for _, m := range standing.MetOf(came, a.ID) {
		out.Came = append(out.Came, wording.Came(m))
		out.Last = m.ID
	}
	return out
}
