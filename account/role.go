package account

import "strings"

// Role is what somebody is in a studio.
type Role string

// The roles: who owns the studio, who teaches in it, who helps.
const (
	Owner     Role = "owner"
	Teacher   Role = "teacher"
	Assistant Role = "assistant"
)

// Known says that it is one of the roles.
func (r Role) Known() bool { return r == Owner || r == Teacher || r == Assistant }

// Owns says that somebody may invite others, read what was done, and keep or give back the whole studio.
func (r Role) Owns() bool { return r == Owner }

// Publishes says that somebody may send things to families and change what is taught; an assistant sees and notes.
func (r Role) Publishes() bool { return r == Owner || r == Teacher }

// May says whether somebody may make a call of the contract, by its method and its path below /api. An assistant sees
// everything that is taught, notes what happens in lessons, and looks after the own account; takes nothing out.
func (r Role) May(method, path string) bool {
	if r.Publishes() {
		return true
	}
	switch {
	case strings.HasPrefix(path, "/account/people"), strings.HasPrefix(path, "/account/studio"):
		return false
	case path == "/session", path == "/session/passkey", path == "/account", strings.HasPrefix(path, "/account/"):
		return true
	case method == "GET" || method == "HEAD":
		return !strings.HasSuffix(path, "/export") && !strings.HasSuffix(path, "/data")
	case method == "POST":
		return strings.HasPrefix(path, "/ladders/") && strings.HasSuffix(path, "/entries")
	}
	return false
}

// Teaches says whether a student is among those that somebody sees in lists: the own ones, those of a colleague whose lesson
// is covered today, for an owner those that nobody else has, for an assistant all. of is whose student it is, empty for the
// owner's.
func (r Role) Teaches(me, of string, covered bool) bool {
	return r == Assistant || covered || r.Keeps(me, of)
}

// Opens says whether somebody may open what there is about a student: those that are taught, and for an owner all.
func (r Role) Opens(me, of string, covered bool) bool {
	return r == Owner || r.Teaches(me, of, covered)
}

// Keeps says whether the private notes about a student are somebody's own: those of the teacher who has the student, or of
// the owner.
func (r Role) Keeps(me, of string) bool { return of == me || of == "" && r == Owner }
