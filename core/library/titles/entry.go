package titles

import (
	"regexp"
	"strconv"
	"strings"
	"time"
)

// Entry is a line of a list, taken apart.
type Entry struct {
	// Title is what is left when all that stands around it is taken away.
	Title string
	// Unit is the one that a line names, "Unit 2" of "2.3" and of "Unit 2:"; Page the page, 0 for none.
	Unit string
	Page int
	// Month and Year are when it was finished, as the line says; 0 for none.
	Month time.Month
	Year  int
	// Line is its number in the text, from 1.
	Line int
}

var (
	// ends are the ends of lines.
	ends = regexp.MustCompile(`\r\n|[\n\r\x{2028}]`)
	// placed is a unit with a number in it: "2.3"; "3/4" may be a time signature.
	placed = regexp.MustCompile(`^\s*(\d{1,2})\.(\d{1,3})[.):]?\s+`)
	// headed is a unit that is named: "Unit 2:", "chapter 3 -".
	headed = regexp.MustCompile(`(?i)^\s*((?:unit|lesson|chapter|part)\s+(?:\d{1,3}|[ivx]{1,5}))\s*[:.–-]\s*`)
	// bare is a number without a sign behind it: "12 Low Water". It counts only where most lines have one, in rising order.
	bare = regexp.MustCompile(`^\s*(\d{1,3})\s+`)
	// paged is a page at the end: "p. 6", "(page 12)", ", pg 7".
	paged = regexp.MustCompile(`(?i)[\s,(–-]+(?:pp?\.?|pg\.?|page)\s*(\d{1,4})\)?\s*$`)
	// done is a word that it was finished, with or without when: "- finished Feb", "(done in March 2026)", "✓".
	done = regexp.MustCompile(
		`(?i)[\s,(–-]*(?:[-–,(]\s*(?:finished|done|cleared|learned|passed)|✓|✔)(?:\s+(?:in\s+)?([a-z]{3,9})\.?)?(?:\s*(\d{4}))?\)?\s*$`,
	)
)

// Read takes the lines of a list apart; lines that say nothing are passed over.
func Read(text string) (out []Entry) {
	lines := ends.Split(text, -1)
	numbers := numbered(lines)
	for i, line := range lines {
		e := Entry{Line: i + 1}
		switch {
		case placed.MatchString(line):
			e.Unit = "Unit " + placed.FindStringSubmatch(line)[1]
			line = placed.ReplaceAllString(line, "")
		case headed.MatchString(line):
			e.Unit = headed.FindStringSubmatch(line)[1]
			line = number.ReplaceAllString(headed.ReplaceAllString(line, ""), "")
		case numbers:
			line = bare.ReplaceAllString(number.ReplaceAllString(line, ""), "")
		default:
			line = number.ReplaceAllString(line, "")
		}
		// What was done and the page stand in either order.
		for range 2 {
			if m := done.FindStringSubmatch(line); m != nil && e.finished(m[1], m[2]) {
				line = line[:len(line)-len(m[0])]
			}
			if m := paged.FindStringSubmatch(line); m != nil && e.Page == 0 {
				e.Page, _ = strconv.Atoi(m[1])
				line = line[:len(line)-len(m[0])]
			}
		}
		e.Title = strings.Trim(strings.TrimSpace(line), " \t,;“”\"")
		if plain(e.Title) != "" {
			out = append(out, e)
		}
	}
	return out
}

// finished notes when it was finished; false where the words are no month.
func (e *Entry) finished(month, year string) bool {
	if month != "" {
		for m := time.January; m <= time.December; m++ {
			if strings.HasPrefix(strings.ToLower(m.String()), strings.ToLower(month)) || strings.EqualFold(month, "sept") && m == time.September {
				e.Month = m
			}
		}
		if e.Month == 0 {
			return false
		}
	}
	e.Year, _ = strconv.Atoi(year)
	return true
}

// When is the middle of the month in which it was finished, the last such month by a day where no year is named; ok is false
// where the line does not say.
func (e Entry) When(today time.Time) (day time.Time, ok bool) {
	switch {
	case e.Month == 0 && e.Year == 0:
		return time.Time{}, false
	case e.Month == 0:
		day = time.Date(e.Year, time.July, 1, 0, 0, 0, 0, time.UTC)
	case e.Year == 0:
		if day = time.Date(today.Year(), e.Month, 15, 0, 0, 0, 0, time.UTC); e.Month > today.Month() {
			day = day.AddDate(-1, 0, 0)
		}
	default:
		day = time.Date(e.Year, e.Month, 15, 0, 0, 0, 0, time.UTC)
	}
	if day.After(today) {
		day = today
	}
	return day, true
}

// numbered says that most lines begin with a number, each a higher one: they are numbers of the list and of no title.
func numbered(lines []string) bool {
	n, all, last := 0, 0, 0
	for _, line := range lines {
		if strings.TrimSpace(line) == "" {
			continue
		}
		all++
		if m := bare.FindStringSubmatch(line); m != nil {
			at, _ := strconv.Atoi(m[1])
			if at <= last {
				return false
			}
			n, last = n+1, at
		}
	}
	return n >= 2 && 2*n > all
}
