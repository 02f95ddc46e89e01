package curriculum

import (
	"fmt"
	"strings"
	"unicode/utf8"

	"patientladder/core/library/skill"
)

// Words are a teacher's own words for skills, as Word writes them, with the skill that each means; empty for one that is no skill.
type Words map[string]string

// Said are words and what each means; an error names a skill that there is not, or says that a word is none.
func Said(pairs [][2]string, skills skill.Catalogue) (Words, error) {
	out := Words{}
	for _, p := range pairs {
		word, id := Word(p[0]), p[1]
		if _, known := skills.Get(id); id != "" && !known {
			return nil, fmt.Errorf("“%s” cannot mean the skill %q, which nobody knows", word, id)
		}
		if word == "" || utf8.RuneCountInString(word) > longestWord {
			return nil, fmt.Errorf("a word for a skill has 1 to %d letters", longestWord)
		}
		out[word] = id
	}
	return out, nil
}

// Word is a teacher's word as Words has it: small letters, single spaces.
func Word(text string) string { return strings.ToLower(strings.Join(strings.Fields(text), " ")) }

// longestWord is how many letters a word for a skill may have that is to be remembered.
const longestWord = 100

// Spoken is a word for a skill that the catalogue does not have.
type Spoken struct {
	Word string
	// Skill that it means; Open says that nobody has said so yet, and an empty one that it is no skill.
	Skill string
	Open  bool
	// Rows that say it.
	Rows int
}

// skillNames finds skills by what they are called.
type skillNames struct {
	skills skill.Catalogue
	byName map[string]string
	words  Words
	spoken []Spoken
	at     map[string]int
	// unknown are the words of the cell that is read that name no skill.
	unknown []string
}

func newSkillNames(skills skill.Catalogue, words Words) *skillNames {
	n := &skillNames{skills: skills, byName: map[string]string{}, words: words, at: map[string]int{}}
	for _, s := range skills.All() {
		n.byName[Word(s.Name)] = s.ID
	}
	return n
}

// named is the skill of a name or an id of the catalogue.
func (n *skillNames) named(word string) (id string, ok bool) {
	if id, ok = n.byName[Word(word)]; ok {
		return id, true
	}
	_, ok = n.skills.Get(strings.ToLower(word))
	return strings.ToLower(word), ok
}

// own says that a word is a teacher's, and no name.
func (n *skillNames) own(word string) bool {
	_, ok := n.named(word)
	return !ok
}

// find is the skill that a word means; empty for a word that is no skill, or that nobody knows: that is told.
func (n *skillNames) find(word string) string {
	if id, ok := n.named(word); ok {
		return id
	}
	key := Word(word)
	id, said := n.words[key]
	if _, there := n.skills.Get(id); id != "" && !there {
		said = false // the skill is gone
	}
	if !said {
		id = ""
		n.unknown = append(n.unknown, word)
	}
	if utf8.RuneCountInString(key) > longestWord {
		return id
	}
	if i, again := n.at[key]; again {
		n.spoken[i].Rows++
		return id
	}
	n.at[key] = len(n.spoken)
	n.spoken = append(n.spoken, Spoken{Word: key, Skill: id, Open: !said, Rows: 1})
	return id
}

// parts are the skills of a cell. They stand between semicolons or bars; between commas where the whole is no name.
func (n *skillNames) parts(cell string) (out []string) {
	for _, p := range parts(cell) {
		name, _, _ := cutLast(p, ":")
		if _, ok := n.named(name); ok || !strings.Contains(p, ", ") {
			out = append(out, p)
			continue
		}
		for _, x := range strings.Split(p, ", ") {
			if x = strings.TrimSpace(x); x != "" {
				out = append(out, x)
			}
		}
	}
	return out
}
