package api

import (
	"bytes"
	"crypto/sha256"
	"encoding/hex"
	"net/http"
	"strconv"
	"strings"

	"github.com/gin-gonic/gin"
)

// held keeps what is answered until it is known whether the device has it already.
type held struct {
	gin.ResponseWriter
	body   bytes.Buffer
	status int
}

func (w *held) WriteHeader(status int)               { w.status = status }
func (w *held) WriteHeaderNow()                      {}
func (w *held) Write(b []byte) (int, error)          { return w.body.Write(b) }
func (w *held) WriteString(text string) (int, error) { return w.body.WriteString(text) }
func (w *held) Status() int                          { return w.status }
func (w *held) Size() int                            { return w.body.Len() }
func (w *held) Written() bool                        { return w.body.Len() > 0 }
func (w *held) Flush()                               {}

// unchanged names what a family's page is answered (RFC 9110, 8.8.3) and sends it only once: a phone that has it is told so.
func (s *Server) unchanged(c *gin.Context) {
	if c.Request.Method != http.MethodGet || !strings.HasPrefix(c.Request.URL.Path, "/api/family/") {
		return
	}
	out := c.Writer
	w := &held{ResponseWriter: out, status: http.StatusOK}
	c.Writer = w
	defer func() { c.Writer = out }()
	c.Next()
	if w.status == http.StatusOK && strings.HasPrefix(out.Header().Get("Content-Type"), "application/json") {
		sum := sha256.Sum256(w.body.Bytes())
		name := `"` + hex.EncodeToString(sum[:12]) + `"`
		out.Header().Set("ETag", name)
		out.Header().Set("Cache-Control", "private, no-cache")
		for _, known := range strings.Split(c.GetHeader("If-None-Match"), ",") {
			if strings.TrimPrefix(strings.TrimSpace(known), "W/") == name {
				w.status = http.StatusNotModified
				w.body.Reset()
				for _, h := range []string{"Content-Type", "Content-Encoding", "Content-Length"} {
					out.Header().Del(h)
				}
			}
		}
	}
	if w.status != http.StatusNotModified {
		out.Header().Set("Content-Length", strconv.Itoa(w.body.Len()))
	}
	out.WriteHeader(w.status)
	if w.body.Len() > 0 {
		out.Write(w.body.Bytes()) // a device that is gone needs no answer
	}
	out.WriteHeaderNow()
}
