package account

import (
	"encoding/base32"
	"testing"
	"time"

	"github.com/pquerna/otp"
	"github.com/pquerna/otp/totp"
	"github.com/stretchr/testify/require"
)

// RFC 6238, appendix B: the codes of eight digits for the secret "12345678901234567890" with SHA-1; ours are their last six.
func TestCodesOfTheRFC(t *testing.T) {
	secret := base32.StdEncoding.WithPadding(base32.NoPadding).EncodeToString([]byte("12345678901234567890"))
	for at, want := range map[int64]string{59: "94287082", 1111111109: "07081804", 1111111111: "14050471", 1234567890: "89005924", 2000000000: "69279037", 20000000000: "65353130"} {
		now := time.Unix(at, 0)
		eight, err := totp.GenerateCodeCustom(secret, now, totp.ValidateOpts{Period: 30, Digits: otp.DigitsEight, Algorithm: otp.AlgorithmSHA1})
		require.NoError(t, err)
		require.Equal(t, want, eight)
		require.Equal(t, at/30, StepOf(secret, want[2:], 0, now))
		require.Equal(t, at/30, StepOf(secret, " "+want[2:5]+" "+want[5:], at/30-1, now.Add(30*time.Second)), "a clock may be a step off")
		require.Zero(t, StepOf(secret, want[2:], at/30, now), "no code works twice")
		require.Zero(t, StepOf(secret, want[2:], 0, now.Add(61*time.Second)))
	}
	require.Zero(t, StepOf(secret, "000000", 0, time.Unix(59, 0)))
	require.Zero(t, StepOf("not base32!", "", 0, time.Unix(59, 0)))
	require.Equal(
		t,
		"otpauth://totp/Patient%20Ladder:a@b.example?issuer=Patient%20Ladder&secret=ABC",
		SecretURI("ABC", "a@b.example", "Patient Ladder"),
	)
	require.Len(t, NewSecret(), 32)
}

func TestRecoveryCodes(t *testing.T) {
	codes, seen := NewCodes(), map[string]bool{}
	require.Len(t, codes, 10)
	for _, c := range codes {
		require.Regexp(t, `^[a-z2-7]{5}-[a-z2-7]{5}-[a-z2-7]{5}$`, c)
		require.False(t, seen[c])
		seen[c] = true
	}
	require.Equal(t, CodeHash("abcde-fghij-klmno"), CodeHash(" ABCDE fghij KLMNO"))
}

// Common and breached passwords are refused, and those made of the account's own words.
func TestWhichPasswordsAreTaken(t *testing.T) {
	for _, weak := range []string{"password", "Passw0rd1", "iloveyou", "qwertyuiop", "12345678", "football1", "aaaaaaaaaa", "ines.calloway", "CallowayInes", "short"} {
		require.Error(t, Check(weak, "ines.calloway@harbour.example", "Ines Calloway"), weak)
	}
	for _, good := range []string{"gull fog seven ropes", "xq7-Lumbago-tin", "καλάθι ψάρια νησί"} {
		require.NoError(t, Check(good, "ines@harbour.example", "Ines Calloway"), good)
	}
	require.EqualError(t, Check("1234567"), "A password needs at least 8 characters.")
	require.Error(t, Check(string(make([]byte, 9))))
	long := make([]byte, 201)
	for i := range long {
		long[i] = byte('a' + i%26)
	}
	require.EqualError(t, Check(string(long)), "A password has 200 characters at the most.")
	hash, err := HashPassword("gull fog seven ropes")
	require.NoError(t, err)
	require.Regexp(t, `^\$argon2id\$v=19\$m=65536,t=3,p=4\$`, hash)
	require.NoError(t, Compare("gull fog seven ropes", hash))
	require.ErrorIs(t, Compare("gull fog seven rope", hash), ErrWrong)
}

func TestTokensAndNetworks(t *testing.T) {
	secret, hash := Token()
	require.Equal(t, Hash(secret), hash)
	require.GreaterOrEqual(t, len(secret), 26)
	for address, want := range map[string]string{
		"203.0.113.9": "203.0.113.9", "::ffff:203.0.113.9": "203.0.113.9", "2001:db8:1:2:3:4:5:6": "2001:db8:1:2::/64",
		"fe80::1%eth0": "fe80::/64", "what": "what",
	} {
		require.Equal(t, want, Network(address))
	}
}
