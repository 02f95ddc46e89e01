package standing

import (
	"fmt"
	"time"

	"github.com/fxamacker/cbor/v2"
)

// form is the binary form (CBOR, RFC 8949) with sorted keys: the same standing has the same bytes.
var form = func() cbor.EncMode {
	o := cbor.CoreDetEncOptions()
	o.Time = cbor.TimeRFC3339NanoUTC
	mode, err := o.EncMode()
	if err != nil {
		panic("standing: the options of the binary form contradict each other: " + err.Error())
	}
	return mode
}()

// Encode writes a standing down in a binary form that is read in a fraction of
// the time of JSON.
func (s *Standing) Encode() ([]byte, error) { return form.Marshal(s) }

// Decode reads what Encode wrote.
func Decode(data []byte) (*Standing, error) {
	s := &Standing{}
	if err := cbor.Unmarshal(data, s); err != nil {
		return nil, fmt.Errorf("a kept standing is damaged: %w", err)
	}
	if s.Zone != "" {
		zone, err := time.LoadLocation(s.Zone)
		if err != nil {
			return nil, fmt.Errorf("a kept standing is of a zone that is not known: %w", err)
		}
		s.zone = zone
	}
	s.order = byAssignment(s.Materials)
	return s, nil
}
