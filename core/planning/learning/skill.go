package learning

import (
	"cmp"
	"math"
	"slices"
	"strings"
	"time"

	"gonum.org/v1/gonum/mat"
	"gonum.org/v1/gonum/stat/distuv"

	"patientladder/core/base/calendar"
	"patientladder/core/library/material"
	"patientladder/core/planning/forecast"
	"patientladder/core/planning/studentplan"
)

// Cleared is a piece that was learned, with what its leap was made of.
type Cleared struct {
	forecast.Observation
	// Day on which it was cleared.
	Day time.Time
	// Parts are what each skill added to the leap: its weight times how new it was. Secure skills add nothing and are left out.
	Parts map[string]float64
}

// ClearedBy are the pieces that a student learned, in the order of their clearing, those left out whose leap nobody knows;
// with the table's weights, whatever is used now.
func ClearedBy(s studentplan.Student, now Used) []Cleared {
	var out []Cleared
	breaks := s.Timetable().Breaks()
	p := s.Policy.Standing.Leap
	for _, c := range s.Standing.Clearings() {
		m, before := s.Library[c.Material], s.Standing.Materials[c.Material].Before
		if m.Unknown() || len(before.Brought.Skills) != len(m.Demands) {
			continue
		}
		from, to := s.Local(c.From), s.Local(c.To)
		x := Cleared{Day: to, Parts: map[string]float64{}, Observation: forecast.Observation{
			Student: s.Ladder, Leap: c.Leap, DistinctBars: m.DistinctBars,
			Weeks: c.To.Sub(c.From).Hours()/(24*7) - float64(c.Rested)/7 - float64(calendar.WeeksOff(from, to, breaks)),
		}}
		for i, d := range m.Demands {
			if added := d.Weight * p.Novelty(before.Brought.Skills[i]); added > 0 && !byHand(m, d) {
				table := now.table(d.Skill, added)
				x.Parts[d.Skill] += table
				x.Leap += table - added
			}
		}
		out = append(out, x)
	}
	slices.SortStableFunc(out, func(a, b Cleared) int { return a.Day.Compare(b.Day) })
	return out
}

// byHand says that the teacher set a weight against what the score says: it is neither learned nor changed. The demands of a
// piece without a score came from a table, and are.
func byHand(m material.Material, d material.Demand) bool { return m.HasScore && d.Origin == "teacher" }

// Weight is what was learned of one skill: how many times the table's weight it asks for.
type Weight struct {
	Skill string
	// Factor is the middle; four times of five the truth lies between Low and High.
	Factor, Low, High float64
	// Pieces are those from which it was learned.
	Pieces int
}

// Sure says that the table's weight lies outside the range.
func (w Weight) Sure() bool { return w.Low > 1 || w.High < 1 }

const (
	// skillSpread is how far the factors of skills are believed to lie from 1, as a standard deviation, before anything was
	// seen (default).
	skillSpread = 0.5
	// leastPieces is from how many pieces on a weight is told (default).
	leastPieces = 3
	// leastLeap is the share of its prior weight below which the leap's own weight is not taken: where jumps seem to cost no
	// time, a skill cannot cost many times as much.
	leastLeap = 0.5
	// smallest and largest are the bounds of a factor that is used (defaults): lessons of a few students must not
	// make a skill vanish.
	smallest, largest = 0.4, 2.5
)

// fitted is a linear regression of the logarithm of the weeks on the leap, the length, the student, and what each skill
// added to the leap beyond the table: conjugate, normal and inverse gamma, in closed form, as package forecast's; the
// effects of skills are drawn towards nothing by a prior of their own.
type fitted struct {
	prior  forecast.Prior
	column map[string]int // of students, as "s:…", and of skills, as "k:…"
	mean   *mat.VecDense
	cov    mat.SymDense
	shape  float64
	scale  float64
	pieces map[string]int
	all    int
}

// fixed are the columns of the constant, the leap and the length.
const fixed = 3

func columns(c Cleared) [fixed]float64 {
	return [fixed]float64{1, c.Leap, math.Log2(1 + float64(c.DistinctBars)/8)}
}

// fit learns; without skills it is the forecast's own model.
func fit(seen []Cleared, prior forecast.Prior, skills bool) *fitted {
	f := &fitted{prior: prior, column: map[string]int{}, pieces: map[string]int{}, all: len(seen)}
	var names []string
	for _, c := range seen {
		names = append(names, "s:"+c.Student)
		if skills {
			for id := range c.Parts {
				f.pieces[id]++
				names = append(names, "k:"+id)
			}
		}
	}
	slices.Sort(names)
	names = slices.Compact(names)
	for i, name := range names {
		f.column[name] = fixed + i
	}
	n := fixed + len(names)
	precision, pull := mat.NewSymDense(n, nil), mat.NewVecDense(n, nil)
	sum := 2 * prior.NoiseScale
	for i := range n {
		mean, spread := 0.0, prior.StudentSpread
		switch {
		case i < fixed:
			mean, spread = prior.Mean[i], prior.Spread[i]
		case strings.HasPrefix(names[i-fixed], "k:"):
			spread = f.spread()
		}
		p := 1 / (spread * spread)
		precision.SetSym(i, i, p)
		pull.SetVec(i, p*mean)
		sum += p * mean * mean
	}
	for _, c := range seen {
		y := math.Log(math.Max(c.Weeks, 1))
		sum += y * y
		at, x := f.row(c)
		for i := range at {
			pull.SetVec(at[i], pull.AtVec(at[i])+x[i]*y)
			for k := i; k < len(at); k++ {
				precision.SetSym(at[i], at[k], precision.At(at[i], at[k])+x[i]*x[k])
			}
		}
	}
	var chol mat.Cholesky
	chol.Factorize(precision) // positive definite: the prior's diagonal is
	f.mean = mat.NewVecDense(n, nil)
	// The one error there can be is a warning of a large condition number; the solution stands all the same.
	_ = chol.SolveVecTo(f.mean, pull)
	_ = chol.InverseTo(&f.cov)
	f.shape = prior.NoiseShape + float64(len(seen))/2
	f.scale = math.Max((sum-mat.Dot(f.mean, pull))/2, 1e-9)
	return f
}

// spread is that of the effects of skills in units of the noise: skillSpread of the prior weight of the leap.
func (f *fitted) spread() float64 {
	noise := math.Sqrt(f.prior.NoiseScale / f.prior.NoiseShape)
	return skillSpread * f.prior.Mean[1] / noise
}

// row are the columns of a piece that are not zero, in ascending order, with their values; a student or a skill that was
// never seen has none.
func (f *fitted) row(c Cleared) (at []int, x []float64) {
	for i, v := range columns(c) {
		at, x = append(at, i), append(x, v)
	}
	add := func(name string, v float64) {
		if i, known := f.column[name]; known {
			at, x = append(at, i), append(x, v)
		}
	}
	for _, id := range sorted(c.Parts) {
		add("k:"+id, c.Parts[id])
	}
	add("s:"+c.Student, 1)
	return at, x
}

func sorted(parts map[string]float64) []string {
	out := make([]string, 0, len(parts))
	for id := range parts {
		out = append(out, id)
	}
	slices.Sort(out)
	return out
}

// chance is the logarithm of the density that was given to the weeks that a piece took, in logarithms of weeks.
func (f *fitted) chance(c Cleared) float64 {
	t := f.foretold(c)
	return t.LogProb(math.Log(math.Max(c.Weeks, 1)))
}

// foretold is the distribution of the logarithm of the weeks.
func (f *fitted) foretold(c Cleared) distuv.StudentsT {
	at, x := f.row(c)
	centre, spread := 0.0, 0.0
	for i := range at {
		centre += x[i] * f.mean.AtVec(at[i])
		for k := range at {
			spread += x[i] * x[k] * f.cov.At(at[i], at[k])
		}
	}
	if _, known := f.column["s:"+c.Student]; !known {
		spread += f.prior.StudentSpread * f.prior.StudentSpread
	}
	return distuv.StudentsT{Mu: centre, Sigma: math.Sqrt(f.scale / f.shape * (1 + spread)), Nu: 2 * f.shape}
}

// weights are the factors of the skills: an effect beyond the leap is so much more of the leap's own weight.
func (f *fitted) weights() []Weight {
	leap := math.Max(f.mean.AtVec(1), f.prior.Mean[1]*leastLeap)
	tail := distuv.StudentsT{Sigma: 1, Nu: 2 * f.shape}.Quantile(0.9)
	var out []Weight
	for name, i := range f.column {
		id, is := strings.CutPrefix(name, "k:")
		if !is || f.pieces[id] < leastPieces {
			continue
		}
		wide := tail * math.Sqrt(f.scale/f.shape*f.cov.At(i, i)) / leap
		factor := 1 + f.mean.AtVec(i)/leap
		out = append(out, Weight{Skill: id, Factor: clamp(factor), Low: clamp(factor - wide), High: clamp(factor + wide), Pieces: f.pieces[id]})
	}
	slices.SortFunc(out, func(a, b Weight) int {
		if a.Sure() != b.Sure() {
			return map[bool]int{true: -1, false: 1}[a.Sure()]
		}
		return cmp.Or(cmp.Compare(math.Abs(math.Log(b.Factor)), math.Abs(math.Log(a.Factor))), strings.Compare(a.Skill, b.Skill))
	})
	return out
}

func clamp(f float64) float64 { return math.Max(smallest, math.Min(largest, f)) }

// priorOf is the prior of the forecasts with the spread of the students as it was learned from some pieces.
func priorOf(seen []Cleared) forecast.Prior {
	observed := make([]forecast.Observation, len(seen))
	for i, c := range seen {
		observed[i] = c.Observation
	}
	prior := forecast.DefaultPrior()
	prior.StudentSpread, prior.SpreadDoubt = forecast.Fit(observed, prior).Spread(), 0
	return prior
}

// Skills are what a studio learned of the weights of skills, and whether it foretells better.
type Skills struct {
	// Weights are those of the skills that enough pieces asked for: first those that surely differ from the table's, then by
	// how far they lie from it.
	Weights []Weight
	Verdict
	// Seen is from how many pieces it was learned.
	Seen int
}

// Learn learns the weights from the pieces that were cleared in a studio, in the order of their clearing. To judge them each
// stretch is foretold from all that was cleared before it, with and without them.
func Learn(seen []Cleared) Skills {
	out := Skills{Seen: len(seen)}
	if len(seen) == 0 {
		return out
	}
	out.Weights = fit(seen, priorOf(seen), true).weights()
	var gains []float64
	cuts := unseen(len(seen))
	for i, at := range cuts {
		end := len(seen)
		if i+1 < len(cuts) {
			end = cuts[i+1]
		}
		prior := priorOf(seen[:at])
		with, without := fit(seen[:at], prior, true), fit(seen[:at], prior, false)
		for _, c := range seen[at:end] {
			gains = append(gains, with.chance(c)-without.chance(c))
		}
	}
	out.Verdict = verdict(gains)
	return out
}
