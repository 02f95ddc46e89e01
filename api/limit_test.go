package api

import (
	"net/http"
	"net/http/httptest"
	"testing"

	"github.com/gin-gonic/gin"
	"github.com/stretchr/testify/require"

	"patientladder/api/problem"
)

// A file arrives in base64, with a third on top and some room for what goes with it; all else is small.
func TestTheLimitOfABody(t *testing.T) {
	const file, some = 12 << 20, 64 << 10
	for path, want := range map[string]int64{
		"/api/materials": file/3*4 + some, "/api/scores/read": file/3*4 + some, "/api/materials/x/score": file/3*4 + some,
		"/api/library/import": (8<<20)*4/3 + some, "/api/materials/x": 1 << 20, "/api/students": 1 << 20, "/api/scores/typed": 1 << 20,
	} {
		require.Equal(t, want, bodyLimit(path), path)
	}
}

// What has just the length that is allowed goes through; a byte more is refused with a sentence that fits the address.
func TestABodyOfJustTheLength(t *testing.T) {
	s := &Server{}
	over := func(path string, more int64) (int, string) {
		w := httptest.NewRecorder()
		c, _ := gin.CreateTestContext(w)
		c.Request = httptest.NewRequest(http.MethodPost, path, http.NoBody)
		c.Request.ContentLength = bodyLimit(path) + more
		s.limitBody(c)
		return w.Code, w.Body.String()
	}
	code, said := over("/api/library/import", 0)
	require.Equal(t, http.StatusOK, code, said)
	code, said = over("/api/library/import", 1)
	require.Equal(t, http.StatusRequestEntityTooLarge, code)
	require.Contains(t, said, "a curriculum may have 8 MB at most")
	require.Equal(
		t,
		&problem.Problem{Status: http.StatusRequestEntityTooLarge, Detail: "The request is too large; nothing was changed."},
		tooLarge(otherBody),
	)
	require.Equal(
		t,
		&problem.Problem{
			Status: http.StatusRequestEntityTooLarge,
			Detail: "The file is too large: a score may have 12 MB at most. Nothing was changed.",
		},
		tooLarge(scoreBody),
	)
}
