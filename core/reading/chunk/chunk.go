// Package chunk cuts a piece into chunks for practice: small ones first, which
// join two by two into longer ones until the whole is reached.
//
//	chunk.go   the tree
//	border.go  where the music breathes
//	phrase.go  the phrases of a piece
package chunk

import (
	"cmp"
	"math"
	"slices"
	"sort"
	"strconv"

	"patientladder/core/base/rational"
	"patientladder/core/notation/score"
	"patientladder/core/reading/pattern"
)

// Chunk is a stretch of the piece and the two chunks it is joined from.
type Chunk struct {
	// From and To are bar positions from 1, both included.
	From int `json:"from"`
	To   int `json:"to"`
	// Upbeat says that the chunk begins with the upbeat in the bar before From;
	// the chunk before it ends there.
	Upbeat bool `json:"upbeat,omitempty"`
	// Start and End are times in quarter notes: every note that begins in
	// [Start, End) belongs to the chunk.
	Start rational.Rat `json:"start"`
	End   rational.Rat `json:"end"`
	// Notes counts the notes that begin in it, rests and ornaments left out.
	Notes int `json:"notes"`
	// Why says what the chunk ends with: "a rest", "the end of a slur" and so on.
	Why string `json:"why"`
	// Parts are the two chunks that join into this one; empty for a smallest chunk.
	Parts []Chunk `json:"parts,omitempty"`
	// SameAs is the first bar of an earlier smallest chunk with equal notes; 0 when there is none.
	SameAs int `json:"sameAs,omitempty"`
}

// Begins is the bar, from 1, in which the chunk is begun: that of its upbeat where it has one.
func (c Chunk) Begins() int {
	if c.Upbeat {
		return c.From - 1
	}
	return c.From
}

// Quarters is the length of the chunk in quarter notes.
func (c Chunk) Quarters() float64 { return c.End.Sub(c.Start).Float() }

// Leaves returns the smallest chunks in order.
func (c Chunk) Leaves() []Chunk {
	return c.leaves(nil)
}

func (c Chunk) leaves(all []Chunk) []Chunk {
	if len(c.Parts) == 0 {
		return append(all, c)
	}
	for _, p := range c.Parts {
		all = p.leaves(all)
	}
	return all
}

// Levelled is a chunk of a tree with how far it stands above the smallest: 0 for these, and one more
// than the higher of its parts for every other.
type Levelled struct {
	Chunk
	Level int
}

// ByLevel lists the whole tree level by level, the smallest chunks first, each level from left to right.
func (c Chunk) ByLevel() []Levelled {
	var all []Levelled
	var walk func(c Chunk) int
	walk = func(c Chunk) int {
		level := 0
		for _, p := range c.Parts {
			level = max(level, walk(p)+1)
		}
		all = append(all, Levelled{c, level})
		return level
	}
	walk(c)
	slices.SortStableFunc(all, func(a, b Levelled) int { return cmp.Compare(a.Level, b.Level) })
	return all
}

// LeafBars is how many bars a smallest chunk has (common practice): under
// seven a bar, four or five notes; seven and eight two bars; older a phrase,
// taken as four.
func LeafBars(age int) int {
	switch {
	case age < 7:
		return 1
	case age < 9:
		return 2
	}
	return 4
}

// Borders are the teacher's own: true after a bar where a chunk must end,
// false where none may.
type Borders map[int]bool

// Tree cuts a score into smallest chunks of about leafBars bars, at the best
// of the places where the music breathes, and joins neighbours two by two. A
// pickup belongs to the bar after it. The score must have a bar; leafBars is
// at least 1.
func Tree(s *score.Score, load pattern.Load, leafBars int, own Borders) Chunk {
	at := borders(s, load)
	leaves := cut(s, at, max(leafBars, 1), own)
	fill(s, leaves)
	return join(leaves, at)
}

// join makes one chunk of many: it is parted where the music breathes most, the nearer to the middle the rather, so that what
// belongs together joins first: a minuet falls into eight and eight, and each of these into four and four.
func join(leaves []Chunk, at []border) Chunk {
	n := len(leaves)
	if n == 1 {
		return leaves[0]
	}
	// Neither part is under a quarter, so that the way to the whole is short.
	best, most := 0, math.Inf(-1)
	bars := float64(leaves[n-1].To - leaves[0].From + 1)
	for k := max(1, n/4); k <= n-max(1, n/4); k++ {
		end := leaves[k-1].To
		before := float64(end - leaves[0].From + 1)
		strength := at[end].breath - offMiddle*math.Abs(2*before-bars)/bars
		if strength > most {
			best, most = k, strength
		}
	}
	parts := []Chunk{join(leaves[:best], at), join(leaves[best:], at)}
	a, b := parts[0], parts[1]
	return Chunk{
		From: a.From, To: b.To, Upbeat: a.Upbeat, Start: a.Start, End: b.End, Notes: a.Notes + b.Notes, Why: b.Why, Parts: parts,
	}
}

// offMiddle is how much breath a place must have more to be parted at instead of the middle, when it lies at the edge (default).
const offMiddle = 3

// dueBreath is how much breath a border needs not to cost anything (default): with less a chunk rather has another length.
const dueBreath = 2.5

// cut chooses the borders exactly, by dynamic programming over the bars: a
// chunk costs what its length is off the wanted one and what its end lacks in
// breath.
func cut(s *score.Score, at []border, size int, own Borders) []Chunk {
	bars := len(s.Bars)
	pickup := 0
	if bars > 1 && s.Bars[0].Short {
		pickup = 1
	}
	best := make([]float64, bars+1)
	from := make([]int, bars+1)
	for to := 1; to <= bars; to++ {
		best[to] = 1e18
		if must, set := own[to]; set && !must && to < bars {
			continue
		}
		for f := to - 1; f >= 0; f-- {
			length := to - f
			if f == 0 {
				length -= pickup
			}
			if length > 2*size+1 && best[to] < 1e18 {
				break
			}
			if best[f] < 1e18 && (length > 0 || to == bars || own[to]) {
				off := float64(length-size) / float64(size)
				if c := best[f] + 3*off*off + (dueBreath-at[to].breath)/2; c < best[to] {
					best[to], from[to] = c, f
				}
			}
			if own[f] && f > 0 {
				break // a border of the teacher's is never joined over
			}
		}
	}
	var leaves []Chunk
	for to := bars; to > 0; to = from[to] {
		f := from[to]
		leaves = append(leaves, Chunk{From: f + 1, To: to, Start: at[f].time, End: at[to].time, Upbeat: at[f].upbeat, Why: at[to].why})
		if _, set := own[to]; set && to < bars {
			leaves[len(leaves)-1].Why = "the teacher’s border"
		}
	}
	for i, j := 0, len(leaves)-1; i < j; i, j = i+1, j-1 {
		leaves[i], leaves[j] = leaves[j], leaves[i]
	}
	return leaves
}

// fill counts the notes of each smallest chunk and finds the equal ones.
func fill(s *score.Score, leaves []Chunk) {
	leafOf := make([]int, len(s.Bars)+1)
	for i := range leaves {
		for b := leaves[i].From; b <= leaves[i].To; b++ {
			leafOf[b] = i
		}
	}
	texts := make([][]string, len(leaves))
	var buf []byte
	for i := range s.Notes {
		n := &s.Notes[i]
		if n.Rest {
			continue
		}
		k := leafOf[n.Bar]
		if k+1 < len(leaves) && !n.Onset.Less(leaves[k].End) {
			k++ // an upbeat to the next chunk
		}
		if !n.Grace && !n.TieStop {
			leaves[k].Notes++
		}
		at := n.Onset.Sub(leaves[k].Start)
		buf = buf[:0]
		for _, x := range [...]int64{int64(n.Part), int64(n.Staff), at.Num(), at.Den(), n.Duration.Num(), n.Duration.Den(), int64(n.Pitch.StaffStep()), int64(n.Pitch.Alter), flag(n.TieStart), flag(n.TieStop)} {
			buf = strconv.AppendInt(buf, x, 36)
			buf = append(buf, ' ')
		}
		texts[k] = append(texts[k], string(buf))
	}
	first := map[string]int{}
	for i := range leaves {
		sort.Strings(texts[i])
		size := 0
		for _, t := range texts[i] {
			size += len(t) + 1
		}
		key := make([]byte, 0, size)
		for _, t := range texts[i] {
			key = append(append(key, t...), ';')
		}
		if from, seen := first[string(key)]; seen {
			leaves[i].SameAs = from
		} else {
			first[string(key)] = leaves[i].From
		}
	}
}

func flag(b bool) int64 {
	if b {
		return 1
	}
	return 0
}
