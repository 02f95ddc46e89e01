// Package people answers what is asked about students, how they sit, and how the studio teaches and names things.
//
//	students.go  students: who they are, their instruments and lesson times
//	away.go      pauses, leaving and coming back
//	setup.go     bench, feet and hands
//	settings.go  how the studio names things
//	way.go       the way of teaching
package people

import "patientladder/app/open"

// Handlers answer the calls about people and settings.
type Handlers struct{ *open.Loader }
