package chunk

import (
	"patientladder/core/notation/score"
	"patientladder/core/reading/pattern"
)

// phraseBars is how long a phrase is at the most (common practice); a piece that is no longer has phrases of half of that.
const phraseBars = 8

// Phrases are the phrases of a piece, in order: it is parted where the music breathes most until no part has more than eight
// bars. They have no parts of their own.
func Phrases(s *score.Score, load pattern.Load, own Borders) []Chunk {
	tree := Tree(s, load, phraseBars/2, own)
	most := phraseBars
	if tree.bars(s) <= phraseBars {
		most = phraseBars / 2
	}
	var out []Chunk
	var walk func(c Chunk)
	walk = func(c Chunk) {
		if c.bars(s) > most && len(c.Parts) > 0 {
			for _, p := range c.Parts {
				walk(p)
			}
			return
		}
		c.Parts = nil
		out = append(out, c)
	}
	walk(tree)
	return out
}

// bars counts the bars of a chunk, without a pickup.
func (c Chunk) bars(s *score.Score) int {
	n := c.To - c.From + 1
	if c.From == 1 && s.Bars[0].Short {
		n--
	}
	return n
}
