package withfamily

import "regexp"

// pains are words that a note about pain, numbness or swelling has, in the languages that families are spoken to in.
var pains = regexp.MustCompile(`(?i)\b(hurts?|hurting|pains?|painful|ach(e|es|ing)|sore|numb\w*|tingl\w*|swollen|swelling|cramps?)\b` +
	`|(?i)(schmerz|\btut\b.{0,30}\bweh|\bweh\b.{0,30}\btut\b|taub|kribbel|geschwollen|schwellung|krampf|verkrampf)`)

// Hurts says that a note may be about pain, numbness or swelling. It is found by words: one that only sounds like it is read
// first for nothing, which does no harm.
func (n Note) Hurts() bool { return n.Kind != MoveLesson && pains.MatchString(n.Text) }
