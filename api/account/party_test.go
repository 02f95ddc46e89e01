package account

import (
	"testing"

	"github.com/stretchr/testify/require"
)

// Passkeys belong to a page with a name over HTTPS, or to one's own machine.
func TestWhichPagesHavePasskeys(t *testing.T) {
	for address, has := range map[string]bool{
		"https://ladder.example": true, "http://localhost:7320": true, "https://localhost": true, "http://ladder.example": false,
		"https://192.0.2.1": false, "https://[2001:db8::1]": false,
		"https://": false, "": false, "https://%zz": false,
	} {
		w := party(address)
		require.Equal(t, has, w != nil, address)
	}
	require.Equal(t, "ladder.example", party("https://ladder.example:8443").Config.RPID)
	require.Equal(t, []string{"https://ladder.example:8443"}, party("https://ladder.example:8443").Config.RPOrigins)
}
