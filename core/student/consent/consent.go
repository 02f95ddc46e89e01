// Package consent holds what those who stand for a student said when they were asked.
package consent

// Said is what somebody said when asked; empty for not asked yet.
type Said string

// What can be said.
const (
	Yes Said = "yes"
	No  Said = "no"
)
