package placement

import "slices"

// Asked is a skill that a piece asks for, with its weight.
type Asked struct {
	Skill  string
	Weight float64
}

// entryAt is the place in a book, from 0, that parts best what a student can play from what is too new: before it as many
// pieces as can be of which less is new than is bearable, after it as many as can be of which more is, each the more the
// further it is from that, and none more than one that is twice too new. So a hole below does not pull the entry back. Each
// piece is what it asks for; there says what the student has; bearable is the weight of what may be new in a first piece, above
// 0: a comfortable leap. As many as there are pieces where nothing is too new.
func entryAt(pieces [][]Asked, bearable float64, there func(skill string) bool) int {
	sum, best, at := 0.0, 0.0, 0
	for i, p := range pieces {
		missing := 0.0
		for _, d := range p {
			if !there(d.Skill) {
				missing += d.Weight
			}
		}
		if len(p) > 0 {
			sum += min(missing/bearable, 2) - 1
		}
		if sum < best-1e-9 {
			best, at = sum, i+1
		}
	}
	return at
}

// Entry is where a book would be entered: places from 0, as many as there are pieces where nothing is too new.
type Entry struct {
	// At is the place that is most likely right to within one piece, of those that are as good the likeliest itself; Low where
	// the range is wider than half the book.
	At int
	// Low and High are the places between which the right one lies four times of five.
	Low, High int
}

// draws is how often what could be there is drawn to find an entry (default).
const draws = 400

// Entry finds where a book would be entered, by what is believed of everything at once: single skills in doubt may even each
// other out, and where a whole strand is in doubt they do not. bearable is the weight of what may be new in a first piece.
func (b Belief) Entry(pieces [][]Asked, bearable float64) Entry {
	count := make([]int, len(pieces)+1)
	for _, draw := range b.drawn(draws) {
		count[entryAt(pieces, bearable, func(id string) bool {
			i, asked := b.index[id]
			return asked && draw[i]
		})]++
	}
	at := func(share float64) int {
		left := int(share * draws)
		for i, n := range count {
			if left -= n; left < 0 {
				return i
			}
		}
		return len(pieces)
	}
	out := Entry{Low: at(0.1), High: at(0.9)}
	if 2*(out.High-out.Low) > len(pieces) { // nobody knows yet
		out.At = out.Low
		return out
	}
	near := make([]int, len(count)) // within one piece of each place that can be right
	for i, n := range count {
		for k := max(0, i-1); n > 0 && k <= min(len(pieces), i+1); k++ {
			near[i] += count[k]
		}
	}
	enough, most := asGood*float64(slices.Max(near)), -1
	for i, n := range near {
		if float64(n) >= enough && count[i] > most {
			out.At, most = i, count[i]
		}
	}
	return out
}

// asGood is the share of the most from which a place is as good: then the one that is right most often
// counts (default).
const asGood = 0.995
