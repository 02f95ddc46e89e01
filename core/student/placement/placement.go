// Package placement finds out by few questions what a student from elsewhere brings.
//
// A question asks for one skill and is answered yes, nearly, no, or left. What is believed is a distribution over what is
// there: the student has an overall level, a level in each strand that goes with it, and has a skill more likely the
// further the level lies above that of the skill, never without the skills of its strand that it needs, and with a few
// holes of which nothing else tells. Answers may be slips and lucky guesses. The distribution is computed exactly: over
// the levels on a grid, and within a strand by passing messages in a tree of cliques.
//
//	placement.go  the skills that are asked for, the numbers, what is believed
//	strand.go     the exact sums within one strand
//	question.go   which question comes next, and when to stop
package placement

import (
	"math"
	"math/rand/v2"
	"slices"
)

// Skill is what can be asked for.
type Skill struct {
	ID string
	// Strand groups skills that grow together.
	Strand string
	// Needs are the ids of the skills that come before it. Those of other strands tell only by its level.
	Needs []string
	// Level is how far on the way it lies, 0 for the first skills, 1 for the last.
	Level float64
	// Wanted is how much it matters, 0 to 1: less where no book of the studio asks for it. 0 counts as 1.
	Wanted float64
}

// wanted is how much a skill matters.
func (s Skill) wanted() float64 {
	if s.Wanted == 0 {
		return 1
	}
	return s.Wanted
}

// Answer is what came of a question.
type Answer string

// The answers.
const (
	Yes    Answer = "yes"
	Nearly Answer = "nearly"
	No     Answer = "no"
	Left   Answer = "left" // it was passed over and says nothing
)

// Answers are all answers.
func Answers() []Answer { return []Answer{Yes, Nearly, No, Left} }

// Given is an answer to the question for a skill.
type Given struct {
	Skill  string
	Answer Answer
}

// Policy holds the numbers, all defaults.
type Policy struct {
	// Slips are how often this student may slip, where a skill that is there does not show or one shows that is not, and
	// Together how closely the strands may go with the student's overall level, 0 to 1. Each pair is as likely beforehand;
	// the answers say which it is. Default 0.03, 0.08, 0.14 and 0.22; 0.2, 0.5, 0.75, 0.9 and 0.97.
	Slips, Together []float64
	// Hole is how often a skill is missing although all speaks for it. Default 0.03.
	Hole float64
	// Steep is how sharply a level parts what is there from what is not, in standard deviations. Default 0.06.
	Steep float64
	// Before is how sure a skill is of which the teacher said that it was known before. Default 0.85. Faded is how sure one is
	// that was there once and has faded since. Default 0.6.
	Before, Faded float64
	// Learned is how sure a skill is that learned pieces made secure. Default 0.97.
	Learned float64
	// Unmet is how likely a skill is there that lies beyond everything that a student has played, by that alone. Default 0.15.
	Unmet float64
	// Doubt is how much doubt a skill may have on the average where the questions stop. Default 0.035.
	Doubt float64
	// Share is how many questions are asked as a rule at the most, as a share of the skills. Default 0.25. Where they leave
	// more than Unsure of doubt, because this student slips often or the strands lie far apart, it goes on up to Most.
	// Default 0.06 and 0.5.
	Share, Unsure, Most float64
}

// DefaultPolicy returns the defaults, which are ours and adjustable.
func DefaultPolicy() Policy {
	return Policy{
		Slips: []float64{0.03, 0.08, 0.14, 0.22}, Together: []float64{0.2, 0.5, 0.75, 0.9, 0.97},
		Hole: 0.03, Steep: 0.06, Before: 0.85, Faded: 0.6, Learned: 0.97, Unmet: 0.15, Doubt: 0.035, Share: 0.25, Unsure: 0.06, Most: 0.5,
	}
}

const (
	// grid is how many levels are told apart, over so many standard deviations on each side of the middle.
	grid  = 15
	sides = 2.5
	// spread is how much wider than the grid's own unit students lie: of one from elsewhere little is known beforehand.
	spread = 1.6
)

// levels are the grid of levels of a student, in standard deviations.
func gridAt(i int) float64 { return -sides + 2*sides*float64(i)/float64(grid-1) }

// Belief is what is believed of a student. It is a value: an answer makes another one.
type Belief struct {
	policy  Policy
	skills  []Skill
	index   map[string]int
	strands []*strand
	faded   map[string]bool
	learned map[string]bool
	unmet   map[string]bool
	// of is the strand of each skill, in the order of the skills.
	of []int
	// given are the answers, and before the skills that the teacher said were known.
	given  []Given
	before map[string]bool
	// known is the probability of each skill.
	known []float64
	// sums are the results of each strand by level, for each slip of the policy, kept until an answer changes them.
	sums [][]sums
	// worlds are what could be of how often the student slips and how far the strands go together.
	worlds []world
}

// world is one pair of a slip and a togetherness.
type world struct {
	// slip and together are their places in the policy; weight is how likely the pair is by now.
	slip, together int
	weight         float64
	// overall is how likely each overall level is in it.
	overall [grid]float64
}

// Brought is what is known of a student before a question.
type Brought struct {
	// Learned are the skills that learned pieces made secure, Before those of which the teacher says that they were there, Faded
	// those that were there and may be lost.
	Learned, Before, Faded []string
	// Unmet are those that lie beyond everything that the student has played.
	Unmet []string
}

// sums are the results of a strand for each level: the weight of all that was answered, and each skill's share.
type sums struct {
	whole [grid]float64
	share [][grid]float64
}

// New believes what can be believed before a question. What has faded is asked for first, since of it least is known.
func New(skills []Skill, brought Brought, p Policy) Belief {
	set := func(list []string) map[string]bool {
		out := map[string]bool{}
		for _, id := range list {
			out[id] = true
		}
		return out
	}
	b := Belief{
		policy:  p,
		skills:  slices.Clone(skills),
		index:   map[string]int{},
		before:  set(brought.Before),
		learned: set(brought.Learned),
		faded:   set(brought.Faded),
		unmet:   set(brought.Unmet),
	}
	for i, s := range b.skills {
		b.index[s.ID] = i
	}
	names := map[string]int{}
	b.of = make([]int, len(b.skills))
	for i, s := range b.skills {
		at, there := names[s.Strand]
		if !there {
			at = len(b.strands)
			names[s.Strand] = at
			b.strands = append(b.strands, &strand{name: s.Strand})
		}
		b.of[i] = at
		b.strands[at].add(i, s)
	}
	for _, st := range b.strands {
		st.build(b.index)
	}
	b.sums = make([][]sums, len(p.Slips))
	for k := range p.Slips {
		b.sums[k] = make([]sums, len(b.strands))
		for st := range b.strands {
			b.sums[k][st] = b.summed(k, st)
		}
	}
	b.weigh()
	return b
}

// summed are the sums of a strand for a slip, by their places.
func (b *Belief) summed(slip, strand int) sums {
	return b.strands[strand].sums(b.policy, func(skill int) (there, missing float64) { return b.likelihood(skill, b.policy.Slips[slip]) })
}

// After is what is believed after some more answers; one about a skill that nobody asked for changes nothing.
func (b Belief) After(given ...Given) Belief {
	b.given = slices.Clip(b.given)
	touched := map[int]bool{}
	for _, g := range given {
		if at, there := b.index[g.Skill]; there {
			b.given = append(b.given, g)
			touched[b.of[at]] = true
		}
	}
	if len(touched) == 0 {
		return b
	}
	b.sums = slices.Clone(b.sums)
	for k := range b.sums {
		b.sums[k] = slices.Clone(b.sums[k])
		for strand := range touched {
			b.sums[k][strand] = b.summed(k, strand)
		}
	}
	b.weigh()
	return b
}

// Known is how likely a skill is there, 0 to 1; 0 for one that is not asked for.
func (b Belief) Known(id string) float64 {
	if i, there := b.index[id]; there {
		return b.known[i]
	}
	return 0
}

// Skills are those that are asked for, in their order.
func (b Belief) Skills() []Skill { return b.skills }

// Given are the answers so far.
func (b Belief) Given() []Given { return b.given }

// likelihood is how well what is known of a skill goes with its being there and with its being missing, for one who slips so often.
func (b *Belief) likelihood(skill int, slip float64) (there, missing float64) {
	there, missing = 1, 1
	id := b.skills[skill].ID
	switch {
	case b.learned[id]:
		there, missing = b.policy.Learned, 1-b.policy.Learned
	case b.before[id]:
		there, missing = b.policy.Before, 1-b.policy.Before
	case b.faded[id]:
		there, missing = b.policy.Faded, 1-b.policy.Faded
	case b.unmet[id]:
		there, missing = b.policy.Unmet, 1-b.policy.Unmet
	}
	for _, g := range b.given {
		if g.Skill != id {
			continue
		}
		switch g.Answer {
		case Yes:
			there, missing = there*(1-slip), missing*slip
		case No:
			there, missing = there*slip, missing*(1-slip)
		case Nearly: // on the way: it speaks a little against it
			there, missing = there*0.35, missing*0.65
		}
	}
	return there, missing
}

// weigh sums over what could be of slips and togetherness, the overall level and the level of each strand.
func (b *Belief) weigh() {
	b.known = make([]float64, len(b.skills))
	b.worlds = make([]world, 0, len(b.policy.Slips)*len(b.policy.Together))
	known := make([][]float64, 0, cap(b.worlds))
	logs := make([]float64, 0, cap(b.worlds))
	toward := b.policy.toward()
	for k := range b.policy.Slips {
		for j := range b.policy.Together {
			w := world{slip: k, together: j}
			of, log := b.within(&w, toward[j])
			b.worlds, known, logs = append(b.worlds, w), append(known, of), append(logs, log)
		}
	}
	highest, sum := slices.Max(logs), 0.0
	for i, l := range logs {
		b.worlds[i].weight = math.Exp(l - highest)
		sum += b.worlds[i].weight
	}
	for i := range b.worlds {
		b.worlds[i].weight /= sum
		for skill, p := range known[i] {
			b.known[skill] += b.worlds[i].weight * p
		}
	}
	for skill, p := range b.known {
		b.known[skill] = min(1, max(0, p))
	}
}

// within sums over the levels in one world: how likely each skill is there in it, and the logarithm of how well everything
// that was answered goes with it. The overall level is kept in it.
func (b *Belief) within(w *world, toward [grid][grid]float64) (known []float64, log float64) {
	byStrand := make([][grid]float64, len(b.strands))
	for k := range b.strands {
		for g := range grid {
			for t := range grid {
				byStrand[k][g] += toward[g][t] * b.sums[w.slip][k].whole[t]
			}
		}
	}
	// Everything else that speaks for an overall level, strand by strand, in logarithms so that nothing vanishes.
	total := [grid]float64{}
	for g := range grid {
		total[g] = math.Log(density(gridAt(g) / spread))
		for k := range b.strands {
			total[g] += math.Log(max(byStrand[k][g], 1e-300))
		}
	}
	highest, all := slices.Max(total[:]), 0.0
	for g := range grid {
		w.overall[g] = math.Exp(total[g] - highest)
		all += w.overall[g]
	}
	known = make([]float64, len(b.skills))
	for k, st := range b.strands {
		level := [grid]float64{}
		sum := 0.0
		for g := range grid {
			share := w.overall[g] / max(byStrand[k][g], 1e-300)
			for t := range grid {
				level[t] += share * toward[g][t]
			}
		}
		for t := range grid {
			level[t] *= b.sums[w.slip][k].whole[t]
			sum += level[t]
		}
		for i, skill := range st.skills {
			for t := range grid {
				known[skill] += level[t] / sum * b.sums[w.slip][k].share[i][t]
			}
		}
	}
	return known, highest + math.Log(all)
}

// toward is how likely each level of a strand is, given the overall one, for each togetherness.
func (p Policy) toward() [][grid][grid]float64 {
	out := make([][grid][grid]float64, len(p.Together))
	for j, together := range p.Together {
		width := math.Sqrt(1 - together*together)
		for g := range grid {
			sum := 0.0
			for t := range grid {
				out[j][g][t] = density((gridAt(t) - together*gridAt(g)) / width)
				sum += out[j][g][t]
			}
			for t := range grid {
				out[j][g][t] /= sum
			}
		}
	}
	return out
}

// Slips is how often the student is believed to slip.
func (b Belief) Slips() (slip float64) {
	for _, w := range b.worlds {
		slip += w.weight * b.policy.Slips[w.slip]
	}
	return slip
}

// drawn are courses of what could be there, drawn by what is believed: a slip and a togetherness, an overall level, with it one
// of each strand, with that each skill. So what goes together goes together in each of them. The same belief gives the same draws.
func (b Belief) drawn(n int) [][]bool {
	r := rand.New(rand.NewPCG(uint64(len(b.skills)), uint64(len(b.given))))
	toward := b.policy.toward()
	weights := make([]float64, len(b.worlds))
	for i, w := range b.worlds {
		weights[i] = w.weight
	}
	out := make([][]bool, n)
	for d := range out {
		out[d] = make([]bool, len(b.skills))
		w := &b.worlds[lot(r, weights)]
		g := lot(r, w.overall[:])
		for k, st := range b.strands {
			level := toward[w.together][g]
			for t := range level {
				level[t] *= b.sums[w.slip][k].whole[t]
			}
			t := lot(r, level[:])
			for i, skill := range st.skills {
				out[d][skill] = r.Float64() < b.sums[w.slip][k].share[i][t]
			}
		}
	}
	return out
}

// lot draws one of some by their weights.
func lot(r *rand.Rand, weights []float64) int {
	sum := 0.0
	for _, w := range weights {
		sum += w
	}
	x := r.Float64() * sum
	for i, w := range weights {
		if x -= w; x < 0 {
			return i
		}
	}
	return len(weights) - 1
}

// density is that of a normal distribution, without its constant.
func density(x float64) float64 { return math.Exp(-x * x / 2) }

// at is how likely a skill of a level is there for a student on a level of the grid, its needs being there.
func (p Policy) at(level float64, t int) float64 {
	// The levels of skills lie where those of students do.
	mark := (2*level - 1) * 1.6
	return (1 - p.Hole) / (1 + math.Exp(-(gridAt(t)-mark)/p.Steep))
}

// unlikely is how likely a skill is there without one that it needs.
const unlikely = 0.02
