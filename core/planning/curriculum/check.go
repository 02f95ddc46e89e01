package curriculum

import (
	"fmt"
	"sort"
	"strings"
	"unicode/utf8"

	"patientladder/core/library/instrument"
	"patientladder/core/library/material"
	"patientladder/core/library/skill"
	"patientladder/core/notation/score"
	"patientladder/core/student/leap"
)

// mostFaults is how many faults are told before the rest is counted.
const mostFaults = 50

// Check says everything that is wrong with a curriculum, against the skills that
// the studio has already. It returns the studio's skills with those of the
// curriculum; nothing of a faulty curriculum should be kept.
func Check(c Curriculum, known skill.Catalogue) (skill.Catalogue, []string) {
	f := &faults{}
	all := known
	count := 0
	for _, s := range c.Sources {
		count += len(s.Materials)
	}
	if count > MostMaterials {
		f.add("the curriculum holds %d materials; %d is the most", count, MostMaterials)
		return known, f.list()
	}
	if len(c.Skills) > 0 {
		var err error
		if all, err = known.With(c.Skills); err != nil {
			f.add("%s", err)
			all = known
		}
	}
	for _, s := range c.Skills {
		if !idLike(s.ID) {
			f.add("the skill %q needs an id of small letters, digits and hyphens, at most 64", s.ID)
		}
	}
	seen := map[string]string{}
	twice := func(id, what string) {
		switch old, again := seen[id]; {
		case id == "":
			f.add("%s has no id", what)
		case again:
			f.add("the id %q stands there twice: %s and %s", id, old, what)
		default:
			seen[id] = what
		}
	}
	for i, s := range c.Sources {
		where := fmt.Sprintf("source %d (%q)", i+1, s.Title)
		if s.Title != "" {
			twice(s.ID, where)
		}
		if name, ok := instrument.Named(s.Instrument); !ok || name != s.Instrument {
			f.add("%s: %q cannot be the name of an instrument: use small letters, as in “double bass”", where, s.Instrument)
		}
		for j, m := range s.Materials {
			at := fmt.Sprintf("%s, material %d (%q)", where, j+1, m.Title)
			twice(m.ID, at)
			m.faults(at, all, f)
		}
	}
	return all, f.list()
}

func (m Material) faults(at string, skills skill.Catalogue, f *faults) {
	if strings.TrimSpace(m.Title) == "" || utf8.RuneCountInString(m.Title) > 200 {
		f.add("%s needs a title of at most 200 letters", at)
	}
	if !knownStrand(m.Strand) {
		f.add("%s: %q is not a strand (%s)", at, m.Strand, strandNames())
	}
	if m.Page < 0 || m.Page > 10000 || m.Bars < 0 || m.Bars > score.MostBars || m.DistinctBars < 0 || m.DistinctBars > m.Bars && m.Bars > 0 ||
		m.Tempo < 0 ||
		m.Tempo > 1000 {
		f.add("%s: page, bars, different bars or tempo cannot be right", at)
	}
	asked := map[string]bool{}
	for _, d := range m.Demands {
		if _, ok := skills.Get(d.Skill); !ok {
			f.add("%s asks for the skill %q, which nobody knows", at, d.Skill)
		}
		if asked[d.Skill] {
			f.add("%s asks for the skill %q twice", at, d.Skill)
		}
		asked[d.Skill] = true
		if d.Weight <= 0 || d.Weight > 2 {
			f.add("%s: the weight of %q must be above 0 and at most 2, not %g", at, d.Skill, d.Weight)
		}
	}
	if len(m.FocusPoints) > 12 || len(m.Tags) > 12 {
		f.add("%s has more than 12 focus points or tags", at)
	}
}

// faults collects sentences.
type faults struct {
	said []string
	more int
}

func (f *faults) add(format string, args ...any) {
	if len(f.said) == mostFaults {
		f.more++
		return
	}
	f.said = append(f.said, fmt.Sprintf(format, args...))
}

func (f *faults) list() []string {
	if f.more > 0 {
		return append(f.said, fmt.Sprintf("and %d more", f.more))
	}
	return f.said
}

func knownStrand(s material.Strand) bool {
	for _, known := range material.Strands() {
		if s == known {
			return true
		}
	}
	return false
}

func strandNames() string {
	var names []string
	for _, s := range material.Strands() {
		names = append(names, string(s))
	}
	return strings.Join(names, ", ")
}

func idLike(id string) bool {
	if id == "" || len(id) > 64 {
		return false
	}
	for _, r := range id {
		if (r < 'a' || r > 'z') && (r < '0' || r > '9') && r != '-' {
			return false
		}
	}
	return true
}

// TooMany is how many new skills at once are too many (default).
const TooMany = 5

// Concerns says what is doubtful in the books of one instrument, without being
// wrong: performance pieces that ask for a skill that nothing introduces, and
// materials that ask for too much at once when each book is played in its order.
func Concerns(books [][]material.Material, skills skill.Catalogue, p leap.Policy) []string {
	introduced := map[string]bool{}
	asked := map[string]material.Material{}
	for _, book := range books {
		for _, m := range book {
			for _, d := range m.Demands {
				if m.Strand != material.Repertoire {
					introduced[d.Skill] = true
				} else if _, seen := asked[d.Skill]; !seen {
					asked[d.Skill] = m
				}
			}
		}
	}
	var out []string
	for id, m := range asked {
		if s, ok := skills.Get(id); ok && !introduced[id] && len(s.Steps) == 0 {
			out = append(out, fmt.Sprintf("Nothing introduces “%s”: it has no preview steps, and “%s” is the first to ask for it.", s.Name, m.Title))
		}
	}
	sort.Strings(out)
	for _, book := range books {
		for i, line := range Profile(book, leap.Ability{}, p).Lines {
			if i > 0 && len(line.Enters) > TooMany {
				out = append(out, fmt.Sprintf("“%s” asks for %d new skills at once.", line.Material.Title, len(line.Enters)))
			}
		}
	}
	return out
}
