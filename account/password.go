package account

import (
	"errors"
	"fmt"
	"strings"
	"unicode/utf8"

	"github.com/alexedwards/argon2id"
	"github.com/trustelem/zxcvbn"
)

const (
	// Shortest and Longest bound a password in characters (NIST SP 800-63B has eight at the least, from memory).
	Shortest, Longest = 8, 200
	// enough is how many guesses a password must withstand, as a power of ten: safe against guesses at a sign-in that is
	// slowed down.
	enough = 8
	// read is how many characters are weighed: what follows can only make it stronger, and weighing costs time.
	read = 64
)

// ErrPassword says in a sentence what is wrong with a password.
type ErrPassword string

func (e ErrPassword) Error() string { return string(e) }

// Check says what is wrong with a new password, or returns nil. The lists of common and breached passwords, names and words
// ship with zxcvbn; about are the account's own words, which count as known.
func Check(password string, about ...string) error {
	n := utf8.RuneCountInString(password)
	switch {
	case !utf8.ValidString(password) || strings.ContainsRune(password, 0):
		return ErrPassword("The password has characters that cannot be typed.")
	case n < Shortest:
		return ErrPassword(fmt.Sprintf("A password needs at least %d characters.", Shortest))
	case n > Longest:
		return ErrPassword(fmt.Sprintf("A password has %d characters at the most.", Longest))
	}
	var known []string
	for _, a := range about {
		known = append(known, strings.FieldsFunc(strings.ToLower(a), func(r rune) bool { return strings.ContainsRune(" @.,-_", r) })...)
	}
	short := password
	if n > read {
		short = string([]rune(password)[:read])
	}
	if guesses := zxcvbn.PasswordStrength(short, known).Guesses; guesses < pow10(enough) {
		return ErrPassword(
			"This password is too easy to guess: it, or what it is made of, stands in lists of common passwords. Four words that do not belong together are good.",
		)
	}
	return nil
}

func pow10(n int) float64 {
	out := 1.0
	for range n {
		out *= 10
	}
	return out
}

// params are those that RFC 9106 names as its second recommended option: 64 MiB, 3 passes.
var params = &argon2id.Params{Memory: 64 << 10, Iterations: 3, Parallelism: 4, SaltLength: 16, KeyLength: 32}

// LowerCost makes hashes cheap, for tests of other things than passwords: half of the time of the tests of the API went into
// them. The program never calls it.
func LowerCost() {
	params = &argon2id.Params{Memory: 64, Iterations: 1, Parallelism: 1, SaltLength: 16, KeyLength: 32}
}

// HashPassword returns the Argon2id hash of a password.
func HashPassword(password string) (string, error) { return argon2id.CreateHash(password, params) }

// ErrWrong says that a password is not the right one.
var ErrWrong = errors.New("the password is not right")

// Compare returns nil when a password is the one of a hash, and ErrWrong otherwise.
func Compare(password, hash string) error {
	if ok, err := argon2id.ComparePasswordAndHash(password, hash); err != nil || !ok {
		return ErrWrong
	}
	return nil
}
