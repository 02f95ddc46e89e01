package account

import (
	"crypto/rand"
	"crypto/subtle"
	"encoding/base32"
	"net/url"
	"strings"
	"time"

	"github.com/pquerna/otp"
	"github.com/pquerna/otp/totp"
)

const (
	// step is how long a code holds, and slack how many steps a clock may be off (RFC 6238, section 5.2).
	step, slack = 30, 1
	// Codes is how many recovery codes there are, for when the app is lost.
	Codes = 10
)

// NewSecret returns a new secret of 160 bits for an authenticator app (RFC 4226, section 4), in base32.
func NewSecret() string {
	var b [20]byte
	rand.Read(b[:])
	return base32.StdEncoding.WithPadding(base32.NoPadding).EncodeToString(b[:])
}

// SecretURI is the address that an authenticator app reads, from a picture or a link.
func SecretURI(secret, email, issuer string) string {
	v := url.Values{"secret": {secret}, "issuer": {issuer}}
	return "otpauth://totp/" + url.PathEscape(issuer+":"+email) + "?" + strings.ReplaceAll(v.Encode(), "+", "%20")
}

// StepOf returns the step of which a code is, among those that are right at a time and later than the one that was used
// last; 0 for none: no code works twice.
func StepOf(secret, code string, used int64, now time.Time) int64 {
	code = strings.ReplaceAll(strings.TrimSpace(code), " ", "")
	at := now.Unix() / step
	found := int64(0)
	for s := at - slack; s <= at+slack; s++ {
		want, err := totp.GenerateCodeCustom(
			secret,
			time.Unix(s*step, 0),
			totp.ValidateOpts{Period: step, Digits: otp.DigitsSix, Algorithm: otp.AlgorithmSHA1},
		)
		if err == nil && s > used && subtle.ConstantTimeCompare([]byte(want), []byte(code)) == 1 {
			found = s
		}
	}
	return found
}

// NewCodes returns recovery codes, each for one use, in groups that can be copied by hand.
func NewCodes() []string {
	out := make([]string, Codes)
	for i := range out {
		text := strings.ToLower(rand.Text())
		out[i] = text[:5] + "-" + text[5:10] + "-" + text[10:15]
	}
	return out
}

// CodeHash is what is kept of a recovery code, however it was typed.
func CodeHash(code string) string {
	return Hash(strings.Map(func(r rune) rune {
		if r == '-' || r == ' ' {
			return -1
		}
		return r
	}, strings.ToLower(strings.TrimSpace(code))))
}
