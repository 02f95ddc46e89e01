package account

import (
	"testing"

	"github.com/stretchr/testify/require"
)

// What browsers send (from memory, shortened).
func TestDevicesAreNamed(t *testing.T) {
	for agent, want := range map[string]string{
		"Mozilla/5.0 (Android 14; Mobile; rv:130.0) Gecko/130.0 Firefox/130.0":                                       "Firefox, Android",
		"Mozilla/5.0 (Windows NT 10.0; Win64; x64) AppleWebKit/537.36 Chrome/129.0 Safari/537.36 Edg/129.0":          "Edge, Windows",
		"Mozilla/5.0 (X11; Linux x86_64) AppleWebKit/537.36 Chrome/129.0 Safari/537.36 OPR/114.0":                    "Opera, Linux",
		"Mozilla/5.0 (iPad; CPU OS 17_5 like Mac OS X) AppleWebKit/605.1.15 Version/17.5 Mobile/15E148 Safari/604.1": "Safari, iPad",
		"Mozilla/5.0 (Macintosh; Intel Mac OS X 10_15_7) AppleWebKit/537.36 Chrome/129.0 Safari/537.36":              "Chrome, Mac OS",
		"curl/8.9 (Linux)": "Linux", "Firefox": "Firefox", "something else": "another program", "": "another program",
	} {
		require.Equal(t, want, DeviceName(agent), agent)
	}
}
