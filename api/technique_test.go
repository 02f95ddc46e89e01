package api_test

import (
	"net/http"
	"testing"

	"github.com/stretchr/testify/require"
)

func TestAScaleWithItsFingers(t *testing.T) {
	u := teacher(t)
	status, s := u.call("GET", "/api/scale?key=Db&kind=major&octaves=2", nil)
	require.Equal(t, http.StatusOK, status, s)
	up := s["up"].(map[string]any)
	require.Equal(t, []any{2.0, 3.0, 1.0, 2.0, 3.0, 4.0, 1.0, 2.0}, up["right"].([]any)[:8])
	require.Len(t, up["midi"], 15)
	require.Equal(t, "The hands meet: the thumbs together on F and C; the same fingers side by side on Db, Eb, Gb, Ab and Bb.", s["sentence"])
	require.Len(t, s["keys"], 15)
	for path, says := range map[string]string{
		"key=H&kind=major":             "is not a key",
		"key=G%23&kind=major":          "write Ab",
		"key=C&kind=major&octaves=9":   "between 1 and 4",
		"key=C&kind=major&octaves=-10": "between 1 and 4",
		"key=C&kind=blues":             "kind",
	} {
		status, problem := u.call("GET", "/api/scale?"+path, nil)
		require.Equal(t, http.StatusUnprocessableEntity, status, path)
		require.Contains(t, problem["detail"], says, path)
	}
}
