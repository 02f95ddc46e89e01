package progress

import (
	"slices"

	"patientladder/core/student/standing"
)

// Kind is the kind of something that grew or needs care.
type Kind string

// What can grow.
const (
	PiecesCleared Kind = "cleared"
	SkillsSecure  Kind = "secure"
	HabitsFormed  Kind = "habits"
	KeysPlayed    Kind = "technique"
	KeptAlive     Kind = "kept"
	PractisedWell Kind = "practised"
)

// What can need care.
const (
	FewLessons   Kind = "missed"
	StuckPiece   Kind = "stuck"
	LittleAtHome Kind = "home"
	ReviewFades  Kind = "fades"
	Nothing      Kind = "none"
)

// mostGrown is how many things that grew are named.
const mostGrown = 3

const (
	// wellPractised is the share of the set days from which practice is praised; keptWell that of the learned pieces that
	// are surely there; fadesBelow the one under which review needs care. leastKept pieces must be learned for both (defaults).
	wellPractised, keptWell, fadesBelow, leastKept = 0.7, 0.8, 0.6, 4
	// oftenMissed is the share of lessons that fell out from which it is the first thing to say, of at least fewLessons (defaults).
	oftenMissed, fewLessons = 0.34, 4
)

// Grown are up to three things that grew in the span, the weightiest first.
func (r Report) Grown() []Kind {
	p := r.Progress
	var out []Kind
	add := func(is bool, k Kind) {
		if is {
			out = append(out, k)
		}
	}
	add(len(r.Pieces()) > 0, PiecesCleared)
	add(len(p.Secure) > 0, SkillsSecure)
	add(len(p.Habits) > 0, HabitsFormed)
	add(len(r.Drills()) > 0, KeysPlayed)
	add(p.Practice.Set >= leastSet && float64(p.Practice.Practised) >= wellPractised*float64(p.Practice.Set), PractisedWell)
	add(p.Review.Learned >= leastKept && p.Review.Heard > 0 && float64(p.Review.Alive) >= keptWell*float64(p.Review.Learned), KeptAlive)
	return out[:min(len(out), mostGrown)]
}

// Care is the one thing that needs care; Nothing where none stands out. Stay goes with StuckPiece.
func (p Progress) Care() (k Kind, stay Stay) {
	if n := len(p.Lessons) + p.Missed; n >= fewLessons && float64(p.Missed) >= oftenMissed*float64(n) {
		return FewLessons, stay
	}
	if i := slices.IndexFunc(p.Stays, func(s Stay) bool {
		return s.State == standing.Working && !s.Ready && s.Usual > 0 && s.Weeks > float64(s.Usual)
	}); i >= 0 {
		return StuckPiece, p.Stays[i]
	}
	if p.Practice.Set >= leastSet && float64(p.Practice.Practised) < littlePractice*float64(p.Practice.Set) {
		return LittleAtHome, stay
	}
	if p.Review.Learned >= leastKept && float64(p.Review.Alive) < fadesBelow*float64(p.Review.Learned) {
		return ReviewFades, stay
	}
	return Nothing, stay
}
