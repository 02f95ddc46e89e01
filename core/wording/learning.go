package wording

import (
	"fmt"
	"math"

	"patientladder/core/planning/learning"
)

// LearnedWeight says how much a skill asks for here against the table.
func (n Names) LearnedWeight(w learning.Weight) string {
	name := Capital(n.Skills.Name(w.Skill))
	switch by := math.Round(100 * math.Abs(w.Factor-1)); {
	case !w.Sure():
		return fmt.Sprintf("%s: too early to say that it differs from the table.", name)
	case w.Factor > 1:
		return fmt.Sprintf("%s asks for %.0f %% more than the table says.", name, by)
	default:
		return fmt.Sprintf("%s asks for %.0f %% less than the table says.", name, by)
	}
}

// LearnedFrom says how sure that is.
func LearnedFrom(w learning.Weight) string {
	return fmt.Sprintf(
		"From %s; four times of five between %.1f and %.1f times the table’s weight.",
		Counted(w.Pieces, "piece"),
		w.Low,
		w.High,
	)
}

// Learned says whether what was learned is used.
func Learned(used learning.Used) string {
	if used.Any() {
		return "What was learned here is used since " + DayAndYear(used.At) + "."
	}
	return "The table’s weights and the published memory are used."
}

// TriedWeights says how the learned weights did on pieces that were not used for learning.
func TriedWeights(v learning.Verdict) string {
	return tried("Weights of skills", "piece", "the table", v)
}

// TriedFade says how the learned memory did on hearings that were not used for learning.
func TriedFade(v learning.Verdict) string {
	return tried("How pieces fade", "hearing", "the published memory", v)
}

func tried(what, on, than string, v learning.Verdict) string {
	tested := fmt.Sprintf("%s: tested on %s not used for learning, this predicts", what, Counted(v.Tests, on))
	switch {
	case v.Tests == 0:
		return fmt.Sprintf("%s: too little to learn from yet.", what)
	case v.Better:
		return fmt.Sprintf("%s better than %s.", tested, than)
	case v.Gain > 0:
		return fmt.Sprintf("%s not clearly better than %s yet.", tested, than)
	}
	return fmt.Sprintf("%s no better than %s.", tested, than)
}

// Faded says how long learned pieces stay here.
func Faded(f learning.Fade) string {
	switch {
	case f.Heard == 0:
		return "No learned piece was rated yet."
	case math.Abs(f.Scale-1) < 0.05:
		return fmt.Sprintf(
			"Learned pieces stay as long as the published memory says (%.1f to %.1f times), from %s.",
			f.Low,
			f.High,
			Counted(f.Heard, "hearing"),
		)
	case f.Scale > 1:
		return fmt.Sprintf(
			"Learned pieces stay %.1f times as long as the published memory says (%.1f to %.1f), from %s.",
			f.Scale,
			f.Low,
			f.High,
			Counted(f.Heard, "hearing"),
		)
	}
	return fmt.Sprintf(
		"Learned pieces fade in %.0f %% of the time that the published memory says (%.0f to %.0f %%), from %s.",
		100*f.Scale,
		100*f.Low,
		100*f.High,
		Counted(f.Heard, "hearing"),
	)
}

// NothingToUse says why nothing of what was learned is used.
const NothingToUse = "Nothing that was learned predicts clearly better yet, so there is nothing to use."

// Moved says how a leap would change.
func (n Names) Moved(m learning.Move) string {
	return fmt.Sprintf("%s for %s: a jump of %.1f instead of %.1f.", n.Title(m.Material), m.Name, m.After, m.Before)
}

// FadeMoves says how many learned pieces would fade under the memory of the studio; empty where that changes nothing.
func FadeMoves(now, then, of int) string {
	if now == then {
		return ""
	}
	return fmt.Sprintf("Of %s that were learned here %s now; %s would.", Counted(of, "piece"), fadeNow(now), Numbered(then))
}

func fadeNow(n int) string {
	if n == 1 {
		return "one fades"
	}
	return Numbered(n) + " fade"
}
