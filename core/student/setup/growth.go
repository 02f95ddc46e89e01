package setup

// Growth is what of a body changed between two measurements, in centimetres; by at least Grown in one of them.
type Growth struct{ Leg, Elbow float64 }

// Grown is the least that a tape can tell (default).
const Grown = 0.5

// GrowthOf is what changed; ok is false where nothing did.
func GrowthOf(before, now Measures) (g Growth, ok bool) {
	g = Growth{round(now.Leg - before.Leg), 0}
	if !before.Chair() && !now.Chair() {
		g.Elbow = round(now.Elbow - before.Elbow)
	}
	return g, g.Leg >= Grown || g.Leg <= -Grown || g.Elbow >= Grown || g.Elbow <= -Grown
}
