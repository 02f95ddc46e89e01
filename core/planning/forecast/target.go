package forecast

// Ready is the chance, 0 to 1, that something drawn as cleared is ready by a
// lesson when it still takes some lessons of polishing after it was cleared.
func Ready(clear []int32, polish, by int) float64 {
	if len(clear) == 0 {
		return 0
	}
	in := 0
	for _, at := range clear {
		if int(at)+polish <= by {
			in++
		}
	}
	return float64(in) / float64(len(clear))
}

// LatestStart is the latest lesson in which a piece can begin and still be
// ready by a lesson with a chance of at least sure; ok is false when even the
// next lesson is too late. The course is the piece's own; how long it takes does
// not depend on when it begins.
func LatestStart(c Course, polish, by int, sure float64) (lesson int, ok bool) {
	took := make([]int32, len(c.Clear))
	for d := range took {
		took[d] = c.Clear[d] - c.Begin[d]
	}
	for lesson = by; lesson >= 0; lesson-- {
		if Ready(took, polish, by-lesson) >= sure {
			return lesson, true
		}
	}
	return 0, false
}
