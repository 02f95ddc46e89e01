package position

import (
	"patientladder/core/notation/score"
	"patientladder/core/reading/turn"
)

// leastRun is how many notes step by step one way make a run that is fingered as its scale is: an octave (common practice).
const leastRun = 8

// runs gives the notes of scale runs their fingers, by the index of the note: single notes that go step by step one way
// over an octave at least take the groups of three and four of the scale of their key, and end without a last turn.
func (k *keyboard) runs() map[int]int {
	out := map[int]int{}
	notes := make([]*score.Note, len(k.l.Onset))
	for i, o := range k.l.Onset {
		if len(o.Notes) == 1 && len(k.held[i]) == 0 {
			notes[i] = &k.s.Notes[o.Notes[0]]
		}
	}
	for from := 0; from < len(notes); {
		to := from
		way := 0
		for to+1 < len(notes) && notes[to] != nil && notes[to+1] != nil {
			step := notes[to+1].Pitch.StaffStep() - notes[to].Pitch.StaffStep()
			if step*step != 1 || way != 0 && step != way {
				break
			}
			way = step
			to++
		}
		if to-from+1 >= leastRun {
			k.run(from, to, way, out)
		}
		from = max(to, from+1)
	}
	return out
}

// run fingers one run of onsets.
func (k *keyboard) run(from, to, way int, out map[int]int) {
	bar := k.s.Bars[k.l.Onset[from].Bar-1]
	tonic := letter(bar.TonicStep())
	altered := map[int]int{}
	for i := to; i >= from; i-- { // where a letter comes in two forms the first one counts
		p := k.s.Notes[k.l.Onset[i].Notes[0]].Pitch
		altered[letter(p.Step)] = p.Alter
	}
	octave := make([]score.Pitch, 7)
	for i := range octave {
		at := (tonic + i) % 7
		octave[i] = score.Pitch{Step: "CDEFGAB"[at], Alter: altered[at], Octave: 4 + (tonic+i)/7}
	}
	g := turn.Of(octave, !k.left)
	fingers := make([]int, to-from+1)
	for i := range fingers {
		p := k.s.Notes[k.l.Onset[from+i].Notes[0]].Pitch
		fingers[i] = g.Finger((letter(p.Step)-tonic+7)%7, !k.left)
	}
	// The outermost note on the side of the little finger takes the next finger instead of a turn for its sake.
	outer, next := len(fingers)-1, len(fingers)-2
	if (way > 0) == k.left {
		outer, next = 0, 1
	}
	if fingers[outer] == 1 {
		fingers[outer] = fingers[next] + 1
	}
	for i, f := range fingers {
		n := k.l.Onset[from+i].Notes[0]
		if f0, there := out[n]; !there || f0 == 1 { // where two runs meet the turning note keeps its finger
			out[n] = f
		}
	}
}

func letter(step byte) int { return (int(step) - 'C' + 7) % 7 }
