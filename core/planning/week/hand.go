package week

import (
	"fmt"
	"slices"
	"time"
)

// Hand is what the teacher sets by hand for one week; the rest is solved around
// it. The zero value sets nothing.
type Hand struct {
	// Days says of some dates, written as 2026-05-05, whether there is practice, whatever the weekday says.
	Days map[string]bool `json:"days,omitempty"`
	// Minutes a day for this week; 0 for the usual ones.
	Minutes int `json:"minutes,omitempty"`
	// Drops are the keys of items that are taken out.
	Drops []string `json:"drops,omitempty"`
	// Pins give items, by key, a day of the week.
	Pins map[string]string `json:"pins,omitempty"`
	// Times say of items, by key, how often they are played, 1 to MostTimes.
	Times map[string]int `json:"times,omitempty"`
	// Adds are learned pieces, by material, to be played beside those that were picked.
	Adds []string `json:"adds,omitempty"`
	// Aside are the keys of steps of the week before for which what home showed does not count.
	Aside []string `json:"aside,omitempty"`
	// Words are the teacher's to the family.
	Words string `json:"words,omitempty"`
}

// MostTimes is the most that an item can be asked for on one day: beyond it, tired hands learn faults.
const MostTimes = 20

// MostWords is the longest word to the family in bytes.
const MostWords = 600

// Check says in a sentence what of it cannot be in the week of so many days that begins on a day.
func (h Hand) Check(start time.Time, days int) error {
	within := func(date string) error {
		d, err := time.Parse(time.DateOnly, date)
		if err != nil {
			return fmt.Errorf("%q is not a date", date)
		}
		if d.Before(start) || !d.Before(start.AddDate(0, 0, days)) {
			return fmt.Errorf("%s is not in the week from %s", d.Format("2 January"), start.Format("2 January"))
		}
		return nil
	}
	if h.Minutes < 0 || h.Minutes > MostMinutes {
		return fmt.Errorf("minutes a day must lie between 1 and %d, not %d", MostMinutes, h.Minutes)
	}
	if len(h.Words) > MostWords {
		return fmt.Errorf("the words to the family are longer than %d letters", MostWords)
	}
	for date := range h.Days {
		if err := within(date); err != nil {
			return err
		}
	}
	for _, date := range h.Pins {
		if err := within(date); err != nil {
			return err
		}
	}
	for _, n := range h.Times {
		if n < 1 || n > MostTimes {
			return fmt.Errorf("a step is played 1 to %d times a day, not %d", MostTimes, n)
		}
	}
	return nil
}

// practisesOn says whether there is practice on a date.
func (in Input) practisesOn(date time.Time) bool {
	if set, ok := in.Hand.Days[date.Format(time.DateOnly)]; ok {
		return set
	}
	return in.Practises[date.Weekday()]
}

func (h Hand) dropped(key string) bool { return slices.Contains(h.Drops, key) }

// sieve takes what is dropped or pinned out of some items, and keeps it apart.
type sieve struct {
	hand    Hand
	dropped []Item
	pinned  map[string][]Item
}

func (s *sieve) through(items []Item) []Item {
	var left []Item
	for _, it := range items {
		switch date := s.hand.Pins[it.Key]; {
		case s.hand.dropped(it.Key):
			s.dropped = append(s.dropped, it)
		case date != "":
			it.Pinned = true
			s.pinned[date] = append(s.pinned[date], it)
		default:
			left = append(left, it)
		}
	}
	return left
}
