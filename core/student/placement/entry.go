package placement

// Asked is a skill that a piece asks for, with its weight.
type Asked struct {
	Skill  string
	Weight float64
}

// bearable is the share of a piece's demands, by weight, that may be missing so that a student can begin there (default).
const bearable = 0.35

// EntryAt is the place in a book, from 0, that parts best what a student can play from what is too new: before it as many
// pieces as can be miss less than is bearable, after it as many as can be miss more, each the more the further it is from
// that. So a hole below does not pull the entry back. Each piece is what it asks for; known is how likely a skill is there.
// As many as there are pieces where nothing is too new.
func EntryAt(pieces [][]Asked, known func(skill string) float64) int {
	sum, best, at := 0.0, 0.0, 0
	for i, p := range pieces {
		missing, all := 0.0, 0.0
		for _, d := range p {
			all += d.Weight
			missing += d.Weight * missingOf(known(d.Skill))
		}
		if all > 0 {
			sum += missing/all - bearable
		}
		if sum < best-1e-9 {
			best, at = sum, i+1
		}
	}
	return at
}

// missingOf is how much of a skill counts as missing: one in doubt as it is, one that is nearly sure as if it were sure.
func missingOf(known float64) float64 {
	m := 1 - known
	return m * m / (m*m + known*known)
}
