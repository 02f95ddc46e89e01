package demo

import "fmt"

// Given and family names of a full studio, all invented.
var (
	givenNames = []string{
		"Ada", "Bram", "Calla", "Dov", "Elin", "Fenn", "Greta", "Halle", "Imre", "Juno", "Kesi", "Lorcan", "Mila", "Nils", "Orla", "Pelle",
		"Quill", "Runa", "Soren", "Tamsin",
		"Ulla", "Vigo", "Willa", "Xander", "Yara", "Zoë",
	}
	familyNames = []string{
		"Alder", "Brightwater", "Copperfield-Nye", "Dunmore", "Eddystone", "Fairlead", "Grapnel", "Hawser", "Inchkeith", "Jibson", "Kittiwake",
		"Longshore", "Marlinspike", "Northey",
		"Oarweed", "Pilchard", "Quayside", "Ratline", "Saltmarsh", "Tidewell", "Undertow", "Vane", "Whelkin", "Yarrow",
	}
)

// lessonsADay is how many lessons a full day has, from two o'clock on.
const lessonsADay = 12

// more fills the roll up to so many students: each goes on like one of those that are written down, under
// another name, at another time.
func more(students []student, n int) []student {
	written := len(students)
	for i := written; i < n; i++ {
		s := students[i%written]
		k := i - written
		s.Name = givenNames[(7*k+k/26)%len(givenNames)] + " " + familyNames[(5*k+k/24)%len(familyNames)]
		s.Age = 4 + (3*i)%14
		s.Weeks = 4 + (11*i)%60
		s.DayOffset = 1 + k/lessonsADay
		minutes := 14*60 + 30*(k%lessonsADay)
		s.StartsAt = fmt.Sprintf("%02d:%02d", minutes/60, minutes%60)
		s.Minutes = 30
		s.Own = append([]string{}, s.Own...)
		students = append(students, s)
	}
	return students
}
