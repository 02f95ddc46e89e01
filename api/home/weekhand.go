package home

import (
	"maps"
	"slices"
	"strings"
	"time"

	openapi_types "github.com/oapi-codegen/runtime/types"

	"patientladder/api/answer"
	"patientladder/api/contract"
	"patientladder/core/planning/week"
	"patientladder/store"
)

// weekHand is what the teacher set by hand, as the rules have it.
func weekHand(h contract.WeekByHand) week.Hand {
	out := week.Hand{
		Days:    map[string]bool{},
		Minutes: h.Minutes,
		Drops:   h.Drops,
		Pins:    map[string]string{},
		Times:   map[string]int{},
		Adds:    h.Adds,
		Aside:   h.Aside,
		Words:   strings.TrimSpace(h.Words),
	}
	for _, d := range h.Days {
		out.Days[d.Day.Format(time.DateOnly)] = d.Practice
	}
	for _, p := range h.Pins {
		out.Pins[p.Item] = p.Day.Format(time.DateOnly)
	}
	for _, t := range h.Times {
		out.Times[t.Item] = t.Times
	}
	return out
}

// byHand is the same as the contract has it.
func byHand(w store.PracticeWeek) contract.WeekByHand {
	h := w.Hand
	out := contract.WeekByHand{
		Version: w.Version,
		Minutes: h.Minutes,
		Drops:   append([]string{}, h.Drops...),
		Adds:    append([]string{}, h.Adds...),
		Aside:   append([]string{}, h.Aside...),
		Words:   h.Words,
	}
	day := func(text string) openapi_types.Date {
		d, _ := time.Parse(time.DateOnly, text) // it was checked when it was kept
		return answer.Date(d)
	}
	for _, d := range slices.Sorted(maps.Keys(h.Days)) {
		out.Days = append(out.Days, contract.DayByHand{Day: day(d), Practice: h.Days[d]})
	}
	for _, key := range slices.Sorted(maps.Keys(h.Pins)) {
		out.Pins = append(out.Pins, contract.WeekPin{Day: day(h.Pins[key]), Item: key})
	}
	for _, key := range slices.Sorted(maps.Keys(h.Times)) {
		out.Times = append(out.Times, contract.WeekTimes{Item: key, Times: h.Times[key]})
	}
	return out
}
