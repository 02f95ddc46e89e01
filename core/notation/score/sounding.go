package score

import (
	"slices"
	"sort"

	"patientladder/core/base/rational"
)

// Sound is one sounding note: ties joined, transposition applied.
type Sound struct {
	Onset    rational.Rat `json:"onset"`
	Duration rational.Rat `json:"duration"`
	MIDI     int          `json:"midi"`
	Part     int          `json:"part"`
	Staff    int          `json:"staff"`
	Voice    string       `json:"voice"`
	Bar      int          `json:"bar"`
	Grace    bool         `json:"grace,omitempty"`
	// Note is the index in Score.Notes of the note that begins the sound.
	Note int `json:"-"`
}

// Sounding returns the notes as they sound, in the order of onset, then
// pitch, then part. A tied chain is one sound. Repeats are not played out. A
// tie that ends on a note with no beginning before it starts a sound of its own.
func (s *Score) Sounding() []Sound {
	order := make([]int, 0, len(s.Notes))
	for i := range s.Notes {
		if !s.Notes[i].Rest {
			order = append(order, i)
		}
	}
	sort.SliceStable(order, func(a, b int) bool {
		return s.Notes[order[a]].Onset.Less(s.Notes[order[b]].Onset)
	})

	type held struct{ part, midi int }
	open := map[held][]int{} // indices into sounds that a tie may still lengthen
	sounds := make([]Sound, 0, len(order))
	for _, i := range order {
		n := &s.Notes[i]
		key := held{n.Part, n.MIDI}
		if n.TieStop && !n.Grace {
			if at, rest := takeTied(sounds, open[key], n); at >= 0 {
				sounds[at].Duration = sounds[at].Duration.Add(n.Duration)
				open[key] = rest
				if n.TieStart {
					open[key] = keep(open[key], at)
				}
				continue
			}
		}
		sounds = append(sounds, Sound{
			Onset: n.Onset, Duration: n.Duration, MIDI: n.MIDI,
			Part: n.Part, Staff: n.Staff, Voice: n.Voice, Bar: n.Bar, Grace: n.Grace, Note: i,
		})
		if n.TieStart && !n.Grace {
			open[key] = keep(open[key], len(sounds)-1)
		}
	}
	sort.SliceStable(sounds, func(a, b int) bool {
		if c := sounds[a].Onset.Cmp(sounds[b].Onset); c != 0 {
			return c < 0
		}
		if sounds[a].MIDI != sounds[b].MIDI {
			return sounds[a].MIDI < sounds[b].MIDI
		}
		return sounds[a].Part < sounds[b].Part
	})
	return sounds
}

// mostTied is how many ties on one pitch of one part can wait for their end at
// once. More come only from damaged files, whose oldest ties are given up.
const mostTied = 32

func keep(open []int, at int) []int {
	if len(open) >= mostTied {
		open = open[1:]
	}
	return append(open, at)
}

// takeTied picks, among the open sounds, the one that ends where n begins, in
// the same voice if there is a choice, and returns it with the others.
func takeTied(sounds []Sound, open []int, n *Note) (int, []int) {
	best := -1
	for k, at := range open {
		s := sounds[at]
		if s.Onset.Add(s.Duration).Cmp(n.Onset) != 0 {
			continue
		}
		if best < 0 || s.Voice == n.Voice && s.Staff == n.Staff {
			best = k
		}
	}
	if best < 0 {
		return -1, open
	}
	at := open[best]
	rest := append(append([]int{}, open[:best]...), open[best+1:]...)
	return at, rest
}

// Heard are the sounds that last; grace notes take no time of their own and are left out.
func (s *Score) Heard() []Sound {
	return slices.DeleteFunc(s.Sounding(), func(x Sound) bool { return x.Grace || x.Duration.Num() <= 0 })
}
