package api

import (
	"patientladder/core/reading/chunk"
	"patientladder/core/student/standing"
	"patientladder/core/student/studentlog"
	"patientladder/core/student/taste"
)

// likings are the signs of liking in words, in the order in which they are said.
var likings = map[studentlog.Sign]string{
	studentlog.PlayedFirst: "played first", studentlog.AskedFor: "asked for", studentlog.Unasked: "practised unasked",
	studentlog.Liked: "liked", studentlog.Disliked: "not liked",
}

// liking says what the student showed about a piece.
func (sh shelf) liking(id string) []string {
	out := []string{}
	for _, sign := range []studentlog.Sign{studentlog.PlayedFirst, studentlog.AskedFor, studentlog.Unasked, studentlog.Liked, studentlog.Disliked} {
		if n := sh.standing.Likings[id][sign]; n == 1 {
			out = append(out, likings[sign])
		} else if n > 1 {
			out = append(out, likings[sign]+" "+counted(n, "time"))
		}
	}
	return out
}

// taste is what the student likes, learned from all that was had.
func (sh shelf) taste() taste.Profile {
	return taste.Learn(sh.standing.Likings, sh.standing.In(standing.Working, standing.Resting, standing.Cleared, standing.Polished), sh.lib)
}

// leafBars is the size of the student's smallest chunks in bars.
func (sh shelf) leafBars() int {
	if sh.way.FirstChunk > 0 {
		return sh.way.FirstChunk
	}
	return chunk.LeafBars(sh.ladder.Age(sh.today))
}
