package bowed

// Plan is a way to bow the notes of an exercise.
type Plan struct {
	ID, Name string
	// PerBow notes lie in one bow.
	PerBow int
	// Words say how.
	Words string
}

// Plans returns the bow plans in their order (common practice: whole bows first,
// then parts of the bow, then several notes in one).
func Plans() []Plan {
	return []Plan{
		{"whole", "a whole bow each", 1, "Whole bows, slow and straight, the same speed from frog to tip."},
		{"half", "half bows", 1, "The lower half, then the same in the upper half: the elbow opens and closes."},
		{"two", "two in a bow", 2, "Two notes in a bow, half of it for each; the left hand changes, the bow does not notice."},
		{"four", "four in a bow", 4, "Four notes in a bow, a quarter of it for each."},
	}
}

// PlanOf returns a plan by its id; ok is false for one that is not known.
func PlanOf(id string) (Plan, bool) {
	for _, p := range Plans() {
		if p.ID == id {
			return p, true
		}
	}
	return Plan{}, false
}

// Stroke is the bow at a note.
type Stroke struct {
	// Up says that the bow goes up; the first goes down (common practice).
	Up bool
	// Begins and Ends say that the note is the first and the last of its bow.
	Begins, Ends bool
}

// Strokes bows so many notes.
func (p Plan) Strokes(notes int) []Stroke {
	out := make([]Stroke, notes)
	for i := range out {
		bow := i / p.PerBow
		out[i] = Stroke{Up: bow%2 == 1, Begins: i%p.PerBow == 0, Ends: i%p.PerBow == p.PerBow-1 || i == notes-1}
	}
	return out
}
