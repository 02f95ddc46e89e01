package placement

import (
	_ "embed"
	"encoding/json"
)

// How is how a question is answered.
type How string

// The ways to answer.
const (
	Clap How = "clap"
	Play How = "play"
	Sing How = "sing"
	Find How = "find"
	Show How = "show"
)

// Task is something concrete by which a skill is asked for.
type Task struct {
	How How `json:"how"`
	// Say is what the teacher says.
	Say string `json:"say"`
	// ABC is what is drawn and played, in ABC 2.1 without its number; empty for nothing.
	ABC string `json:"abc,omitempty"`
	// Heard says that it is played and not shown: it is answered by ear.
	Heard bool `json:"heard,omitempty"`
}

//go:embed tasks.json
var data []byte

var tasks = func() map[string]Task {
	out := map[string]Task{}
	if err := json.Unmarshal(data, &out); err != nil {
		panic(err)
	}
	return out
}()

// TaskOf is the task for a skill; ok is false where the data have none: then an exercise or words ask for it.
func TaskOf(skill string) (Task, bool) {
	t, ok := tasks[skill]
	return t, ok
}
