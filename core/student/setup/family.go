package setup

import "patientladder/core/library/instrument"

// Asked is what is measured for a family of instruments.
type Asked string

// What is asked for.
const (
	AtKeys   Asked = "keys"  // bench, keys, elbow and leg
	OnChair  Asked = "chair" // chair and leg
	Standing Asked = "none"  // nothing: it is played standing
)

// AskedFor is what is measured for an instrument. One that is not known is played on a chair.
func AskedFor(x instrument.Instrument) Asked {
	switch {
	case x.Stands:
		return Standing
	case x.Family == instrument.Keyboard:
		return AtKeys
	}
	return OnChair
}
