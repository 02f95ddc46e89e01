package lessonplan

import (
	"fmt"

	"patientladder/core/planning/next"
	"patientladder/core/planning/review"
)

// Why is the kind of a reason for a segment.
type Why string

// The kinds of reasons.
const (
	Always       Why = "always"   // opening and closing stand in every lesson
	Regularly    Why = "regular"  // posture: a quick check
	Beginner     Why = "beginner" // posture: a beginner's is looked at every time
	SetupDue     Why = "setup"    // bench and feet are to be measured
	InWork       Why = "inWork"   // Count of Of points have their mark
	StuckPiece   Why = "stuck"    // it is stuck
	RunDue       Why = "run"      // every point has its mark
	OpenSpots    Why = "spots"    // Count spots are open
	Planting     Why = "planting" // Material will need the skill; Count lessons in hand, below 0 when it is late
	Idle         Why = "idle"     // nothing is in work on its strand; Proposal says why this one
	Fading       Why = "fading"   // a learned piece; Review says how it stands
	OneOfSeveral Why = "oneOf"    // an activity that was not done yet, one of Of ways
	InTurn       Why = "inTurn"   // an activity that was done Count times, no other less
	WaitedBefore Why = "waited"   // it had to wait last time
	KeyOfWeek    Why = "key"      // the cycle has this key now
	NextStep     Why = "step"     // the next step of a staircase
	OnStair      Why = "stair"    // the Count-th of Of stairs of ear or rhythm
	OpenFault    Why = "fault"    // Count days open: a fault that was seen
	Beside       Why = "beside"   // it is ready, and there is time; Proposal says why this one
	HardAtHome   Why = "hard"     // bars Count to Of of Material were hard at home, all of it for 0
	LeftAtHome   Why = "left"     // nobody touched it at home
)

// Reason is one fact behind a segment. Which fields are set follows from the kind.
type Reason struct {
	Kind      Why
	Count, Of int
	Material  string
	Review    *review.Reason
	Proposal  *next.Reason
}

// Wait is the kind of a reason to stay out.
type Wait string

// The kinds of reasons to stay out.
const (
	ByHand      Wait = "byHand"     // left out by hand
	FarLesson   Wait = "farLesson"  // the next lesson is Count days away, and a new exercise is not left alone over a break
	OneNew      Wait = "oneNew"     // one new thing at a time
	ReviewFull  Wait = "reviewFull" // review has its Count minutes already
	NoRoom      Wait = "noRoom"     // it needs Count minutes, and what was chosen is worth more
	WorthLess   Wait = "worthLess"  // what was chosen is worth more
	SureNow     Wait = "sure"       // it is sure, and refines nothing that is needed
	EnoughHeard Wait = "enough"     // a lesson hears Count learned pieces; the others are played at home
)

// Waiting says why a segment stays out.
type Waiting struct {
	Kind  Wait
	Count int
}

// PinError says that the minutes of a pin are none that a lesson has.
type PinError struct {
	Segment Segment
	// Minutes of the pin, of so many of the lesson.
	Minutes, Of int
}

func (e PinError) Error() string {
	return fmt.Sprintf("segment %q cannot take %d of %d minutes", e.Segment.ID, e.Minutes, e.Of)
}
