package api

import (
	"fmt"
	"math"
	"strings"
	"time"

	"patientladder/api/contract"
	"patientladder/core/library/material"
	"patientladder/core/planning/signs"
	"patientladder/core/student/leap"
	"patientladder/store"
)

func student(l store.Ladder, day time.Time) contract.Student {
	return contract.Student{
		Ladder: l.ID, Name: l.Name, Age: l.Age(day), Instrument: contract.Instrument(l.Instrument),
		Weekday: int(l.Weekday), StartsAt: fmt.Sprintf("%02d:%02d", l.StartsAt/60, l.StartsAt%60), Minutes: l.Minutes, Approach: contract.StudentApproach(l.Approach),
	}
}

func brief(m material.Material) contract.MaterialBrief {
	return contract.MaterialBrief{
		Id: m.ID, Title: m.Title, Composer: m.Composer, Strand: contract.Strand(m.Strand),
		Instrument: contract.Instrument(m.Instrument), Source: m.SourceID, From: from(m), Bars: m.Bars, Exercise: m.Exercise,
	}
}

// from says where a material stands: source, unit and page, or the composer.
func from(m material.Material) string {
	var parts []string
	for _, p := range []string{m.Source, m.Unit} {
		if p != "" {
			parts = append(parts, p)
		}
	}
	if m.Page > 0 {
		parts = append(parts, fmt.Sprintf("page %d", m.Page))
	}
	if len(parts) == 0 {
		return m.Composer
	}
	return strings.Join(parts, ", ")
}

func (b book) leap(m material.Material, l leap.Leap) contract.Leap {
	out := contract.Leap{Size: thousandths(l.Size), Ready: thousandths(l.Ready), Parts: make([]contract.LeapPart, 0, len(l.Parts))}
	for _, p := range l.Parts {
		name := b.skills.Name(p.Skill)
		switch p.Kind {
		case "length":
			name = "more to learn than before"
		case "tempo":
			name = "quicker than before"
		}
		out.Parts = append(out.Parts, contract.LeapPart{
			Kind: contract.LeapPartKind(p.Kind), Skill: p.Skill, Name: name, Level: contract.LeapPartLevel(p.Level),
			Weight: p.Weight, Novelty: thousandths(p.Novelty), Amount: thousandths(p.Amount), Bars: append([]int{}, p.Bars...),
			Where: m.BarsName(p.Bars), Why: p.Why,
		})
	}
	return out
}

// thousandths rounds what goes over the wire: nobody reads more.
func thousandths(x float64) float64 { return math.Round(1000*x) / 1000 }

func signsOut(list []signs.Sign) []contract.Sign {
	out := []contract.Sign{}
	for _, s := range list {
		out = append(out, contract.Sign{Kind: contract.SignKind(s.Kind), Material: s.Material, Text: s.Text})
	}
	return out
}

// joined writes "a", "a and b", "a, b and c".
func joined(names []string) string {
	if n := len(names); n > 1 {
		return strings.Join(names[:n-1], ", ") + " and " + names[n-1]
	}
	return strings.Join(names, "")
}

func capital(s string) string {
	if s == "" {
		return s
	}
	r := []rune(s)
	return strings.ToUpper(string(r[0])) + string(r[1:])
}

var numbers = []string{"no", "one", "two", "three", "four", "five", "six", "seven", "eight", "nine", "ten", "eleven", "twelve"}

// counted writes "no lessons", "one lesson", "three lessons", "40 lessons".
func counted(n int, what string) string {
	word := fmt.Sprint(n)
	if n < len(numbers) {
		word = numbers[n]
	}
	if n != 1 {
		what += "s"
	}
	return word + " " + what
}
