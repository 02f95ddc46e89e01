// Package rational holds exact fractions for musical time.
//
// Musical time is counted in quarter notes. A triplet quaver lasts 1/3 of a
// quarter: no binary fraction holds that, so time is never a float here.
package rational

import (
	"fmt"
	"strconv"
	"strings"
)

// Rat is an exact fraction in lowest terms with a positive denominator.
// The zero value is 0. Values made by this package compare with ==, except
// that the zero value Rat{} and New(0, 1) differ in form: use Cmp or IsZero.
//
// Rat does not guard against overflow: its users bound their inputs (see
// musicxml.Limits) so that sums stay below 2^62.
type Rat struct{ num, den int64 }

// New returns num/den in lowest terms. It panics when den is 0.
func New(num, den int64) Rat {
	if den == 0 {
		panic("rational: zero denominator")
	}
	if den < 0 {
		num, den = -num, -den
	}
	if g := gcd(abs(num), den); g > 1 {
		num, den = num/g, den/g
	}
	return Rat{num, den}
}

// Int returns n as a fraction.
func Int(n int64) Rat { return Rat{n, 1} }

// Num returns the numerator in lowest terms.
func (a Rat) Num() int64 { return a.num }

// Den returns the denominator in lowest terms; it is at least 1.
func (a Rat) Den() int64 {
	if a.den == 0 {
		return 1
	}
	return a.den
}

// Add returns a + b.
func (a Rat) Add(b Rat) Rat {
	ad, bd := a.Den(), b.Den()
	if ad == bd {
		return New(a.num+b.num, ad)
	}
	g := gcd(ad, bd)
	return New(a.num*(bd/g)+b.num*(ad/g), ad/g*bd)
}

// Sub returns a − b.
func (a Rat) Sub(b Rat) Rat { return a.Add(Rat{-b.num, b.Den()}) }

// Mul returns a · b.
func (a Rat) Mul(b Rat) Rat { return New(a.num*b.num, a.Den()*b.Den()) }

// Cmp returns −1, 0 or 1 as a is less than, equal to or greater than b.
func (a Rat) Cmp(b Rat) int {
	d := a.Sub(b).num
	switch {
	case d < 0:
		return -1
	case d > 0:
		return 1
	}
	return 0
}

// Less reports whether a < b.
func (a Rat) Less(b Rat) bool { return a.Cmp(b) < 0 }

// IsZero reports whether a is 0.
func (a Rat) IsZero() bool { return a.num == 0 }

// Float returns the nearest float64, for drawing and for estimates only.
func (a Rat) Float() float64 { return float64(a.num) / float64(a.Den()) }

// Max returns the larger of a and b.
func Max(a, b Rat) Rat {
	if a.Less(b) {
		return b
	}
	return a
}

// String writes "5/4", or "3" for a whole number.
func (a Rat) String() string {
	if a.Den() == 1 {
		return strconv.FormatInt(a.num, 10)
	}
	return strconv.FormatInt(a.num, 10) + "/" + strconv.FormatInt(a.den, 10)
}

// MarshalText writes the form of String.
func (a Rat) MarshalText() ([]byte, error) { return []byte(a.String()), nil }

// UnmarshalText reads the form of String.
func (a *Rat) UnmarshalText(text []byte) error {
	n, d, found := strings.Cut(string(text), "/")
	if !found {
		d = "1"
	}
	num, err := strconv.ParseInt(n, 10, 64)
	if err != nil {
		return fmt.Errorf("%q is not a fraction", text)
	}
	den, err := strconv.ParseInt(d, 10, 64)
	if err != nil || den <= 0 {
		return fmt.Errorf("%q is not a fraction", text)
	}
	*a = New(num, den)
	return nil
}

// LCM returns the least common multiple of two positive numbers, and false
// when it does not fit below 2^31.
func LCM(a, b int64) (int64, bool) {
	m := a / gcd(a, b)
	if m > (1<<31)/b {
		return 0, false
	}
	return m * b, true
}

func gcd(a, b int64) int64 {
	for b != 0 {
		a, b = b, a%b
	}
	return a
}

func abs(a int64) int64 {
	if a < 0 {
		return -a
	}
	return a
}
