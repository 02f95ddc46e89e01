package placement

import (
	"cmp"
	"math"
	"slices"
)

// Question is what to ask next, and why.
type Question struct {
	Skill Skill
	// Known is how likely the skill is there, Worth how much the answer tells on the average, in bits.
	Known, Worth float64
	// Open is how many skills of its strand are still in doubt.
	Open int
}

// Next is the question whose answer tells most; ok is false where none tells anything or the questions are over. An answer
// depends on its own skill alone, so what it tells of everything is what it tells of that skill. A skill that was asked for
// already, or passed over, comes again only where nothing else tells more, since a second answer tells of slips. What no
// book asks for comes later.
func (b Belief) Next(may func(skill string) bool) (Question, bool) {
	var best Question
	slip := b.Slips()
	if unasked := b.unasked(); len(unasked) > 0 && b.Doubt() <= b.policy.Doubt { // all that is left is what nobody looked at
		before := may
		may = func(id string) bool {
			return slices.Contains(unasked, b.skills[b.index[id]].Strand) && (before == nil || before(id))
		}
	}
	for i, s := range b.skills {
		if may != nil && !may(s.ID) {
			continue
		}
		times, left := b.asked(s.ID)
		if left || times > 1 {
			continue
		}
		worth := Worth(b.known[i], slip) * s.wanted()
		if times > 0 {
			worth *= again
		}
		if worth > best.Worth+1e-12 {
			best = Question{Skill: s, Known: b.known[i], Worth: worth}
		}
	}
	if best.Worth < least {
		return Question{}, false
	}
	for i, s := range b.skills {
		if s.Strand == best.Skill.Strand && doubtful(b.known[i]) {
			best.Open++
		}
	}
	return best, true
}

const (
	// again is how much a second question for a skill is worth beside a first one elsewhere (default): the same task is
	// answered the same way more often than chance would have it.
	again = 0.5
	// least is what a question must tell, in bits.
	least = 0.02
)

// asked is how often a skill was asked for, and whether it was passed over.
func (b Belief) asked(id string) (times int, left bool) {
	for _, g := range b.given {
		if g.Skill == id {
			times++
			left = left || g.Answer == Left
		}
	}
	return times, left
}

// Worth is how much an answer yes or no tells on the average where a skill is so likely there, of one who slips so often, in bits.
func Worth(known, slip float64) float64 {
	return entropy(known*(1-slip)+(1-known)*slip) - entropy(slip)
}

// entropy of a thing of two outcomes, in bits.
func entropy(p float64) float64 {
	if p <= 0 || p >= 1 {
		return 0
	}
	return -p*math.Log2(p) - (1-p)*math.Log2(1-p)
}

// doubtful says that a skill is neither there nor missing for sure enough to build on.
func doubtful(known float64) bool { return known > 0.1 && known < 0.9 }

// Doubt is how likely a skill is judged wrongly on the average, the wanted ones counting more, if each is taken as there or missing, whichever is more likely.
func (b Belief) Doubt() float64 {
	if len(b.known) == 0 {
		return 0
	}
	sum, all := 0.0, 0.0
	for i, p := range b.known {
		w := b.skills[i].wanted()
		sum, all = sum+w*min(p, 1-p), all+w
	}
	return sum / all
}

// Ends is why no more questions are asked.
type Ends string

// The reasons; empty where there is something to ask.
const (
	Sure    Ends = "sure"    // every strand is decided well enough
	Enough  Ends = "enough"  // as many questions were answered as are worth asking in one sitting
	Nothing Ends = "nothing" // no question is left that tells anything
)

// Over says whether the questions are over, and why.
func (b Belief) Over() Ends {
	answered := 0
	for _, g := range b.given {
		if g.Answer != Left {
			answered++
		}
	}
	switch {
	case len(b.skills) == 0:
		return Nothing
	case b.Doubt() <= b.policy.Doubt && len(b.unasked()) == 0:
		return Sure
	}
	most := b.policy.Share
	if b.Doubt() > b.policy.Unsure {
		most = b.policy.Most
	}
	if float64(answered+1) > most*float64(len(b.skills)) && len(b.skills) > 8 {
		return Enough
	}
	if _, more := b.Next(nil); !more {
		return Nothing
	}
	return ""
}

// Settled is how a strand stands.
type Settled struct {
	Strand string
	// There, Missing and Open count its skills; Sure says that none is in doubt.
	There, Missing, Open int
	Sure                 bool
}

// Seen says that something is known of a strand by itself: an answer, or what was there before. Of one that was never seen
// the other strands tell what to ask, and nothing is claimed.
func (b Belief) Seen(strand string) bool {
	for _, g := range b.given {
		if i, there := b.index[g.Skill]; there && g.Answer != Left && b.skills[i].Strand == strand {
			return true
		}
	}
	for _, s := range b.skills {
		if s.Strand == strand && (b.learned[s.ID] || b.before[s.ID] || b.faded[s.ID]) {
			return true
		}
	}
	return false
}

// unasked are the strands with wanted skills that were never seen and can still be asked for.
func (b Belief) unasked() (out []string) {
	for k, st := range b.strands {
		open := slices.ContainsFunc(st.skills, func(i int) bool {
			_, left := b.asked(b.skills[i].ID)
			return b.skills[i].Wanted == 0 && !left
		})
		if open && !b.Seen(b.strands[k].name) {
			out = append(out, st.name)
		}
	}
	return out
}

// Strands are how the strands stand, in the order of their first skills.
func (b Belief) Strands() []Settled {
	out := make([]Settled, len(b.strands))
	for k, st := range b.strands {
		out[k].Strand = st.name
		if !b.Seen(st.name) {
			out[k].Open = len(st.skills)
			continue
		}
		for _, skill := range st.skills {
			switch p := b.known[skill]; {
			case doubtful(p):
				out[k].Open++
			case p >= 0.5:
				out[k].There++
			default:
				out[k].Missing++
			}
		}
		out[k].Sure = out[k].Open == 0
	}
	return out
}

// Contradiction is a skill whose answers speak against each other.
type Contradiction struct {
	Skill   string
	Yes, No int
	// Known is what is believed of it now.
	Known float64
}

// Contradictions are the skills that were answered both ways, the more doubtful first.
func (b Belief) Contradictions() []Contradiction {
	at := map[string]*Contradiction{}
	var out []Contradiction
	for _, g := range b.given {
		if at[g.Skill] == nil {
			at[g.Skill] = &Contradiction{Skill: g.Skill, Known: b.Known(g.Skill)}
		}
		switch g.Answer {
		case Yes:
			at[g.Skill].Yes++
		case No, Nearly:
			at[g.Skill].No++
		}
	}
	for _, s := range b.skills {
		if c := at[s.ID]; c != nil && c.Yes > 0 && c.No > 0 {
			out = append(out, *c)
		}
	}
	slices.SortStableFunc(out, func(a, b Contradiction) int {
		return cmp.Compare(math.Abs(a.Known-0.5), math.Abs(b.Known-0.5))
	})
	return out
}

// Then is the question that follows an answer.
type Then struct {
	Answer Answer
	Tree   Tree
}

// Tree is a question with those that follow its answers, so many ahead.
type Tree struct {
	Question
	// Following has no answer after which the questions are over.
	Following []Then
}

// Ahead are a question and those that may follow it, so many after another.
func (b Belief) Ahead(q Question, more int) Tree {
	out := Tree{Question: q}
	if more <= 0 {
		return out
	}
	for _, a := range Answers() {
		then := b.After(Given{Skill: q.Skill.ID, Answer: a})
		if next, any := then.Next(nil); any && then.Over() == "" {
			out.Following = append(out.Following, Then{a, then.Ahead(next, more-1)})
		}
	}
	return out
}
