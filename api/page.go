package api

import (
	"bytes"
	"compress/gzip"
	"crypto/rand"
	"errors"
	"io/fs"
	"mime"
	"net/http"
	"path"
	"strings"

	"github.com/gin-gonic/gin"

	"patientladder/api/problem"
)

// page serves the built front end. Files under assets/ carry a hash of their
// contents in their names, so a browser may keep them for good; the page
// itself is asked for anew each time.
type page struct {
	files map[string]file
	// index is the teacher's page, family that of a family.
	index, family []byte
}

type file struct {
	kind         string
	plain, small []byte // small is compressed; nil where that does not pay
}

// noncePlace in index.html is replaced by a fresh nonce for the style elements
// that the interface library adds while a dialog is open.
const noncePlace = "NONCE_PLACE"

const unbuilt = `<!doctype html><title>Patient Ladder</title><p>The page has not been built: run <code>make build</code>.</p>`

func newPage(built fs.FS) (*page, error) {
	p := &page{files: map[string]file{}}
	err := fs.WalkDir(built, ".", func(name string, d fs.DirEntry, err error) error {
		if err != nil || d.IsDir() {
			return err
		}
		data, err := fs.ReadFile(built, name)
		if err != nil {
			return err
		}
		f := file{kind: mime.TypeByExtension(path.Ext(name)), plain: data}
		if path.Ext(name) == ".woff2" {
			f.kind = "font/woff2"
		} else if f.small, err = compress(data); err != nil {
			return err
		}
		p.files["/"+name] = f
		return nil
	})
	if err != nil && !errors.Is(err, fs.ErrNotExist) {
		return nil, err
	}
	p.index = []byte(unbuilt)
	if f, ok := p.files["/index.html"]; ok {
		p.index, p.family = f.plain, f.plain
	}
	if f, ok := p.files["/family.html"]; ok {
		p.family = f.plain
	}
	return p, nil
}

func compress(data []byte) ([]byte, error) {
	var b bytes.Buffer
	w, err := gzip.NewWriterLevel(&b, gzip.BestCompression)
	if err != nil {
		return nil, err
	}
	if _, err := w.Write(data); err != nil {
		return nil, err
	}
	if err := w.Close(); err != nil {
		return nil, err
	}
	if b.Len() > len(data)*9/10 {
		return nil, nil
	}
	return b.Bytes(), nil
}

func (p *page) serve(c *gin.Context) {
	name := c.Request.URL.Path
	if strings.HasPrefix(name, "/api/") {
		problem.Write(c.Writer, &problem.Problem{Status: http.StatusNotFound, Detail: "There is no such address."})
		return
	}
	if c.Request.Method != http.MethodGet && c.Request.Method != http.MethodHead {
		problem.Write(c.Writer, &problem.Problem{Status: http.StatusMethodNotAllowed, Detail: "This address is only for reading."})
		return
	}
	f, ok := p.files[name]
	switch {
	case ok && name != "/index.html" && name != "/family.html":
		p.asset(c, name, f)
	case strings.HasPrefix(name, "/assets/"):
		problem.Write(c.Writer, &problem.Problem{Status: http.StatusNotFound, Detail: "There is no such file."})
	case strings.HasPrefix(name, familyPlace) && strings.HasSuffix(name, "/app.webmanifest"):
		manifest(c, strings.TrimSuffix(name, "/app.webmanifest"))
	case strings.HasPrefix(name, familyPlace):
		p.home(c, p.family)
	default:
		p.home(c, p.index) // every other address is a screen of the page
	}
}

func (p *page) asset(c *gin.Context, name string, f file) {
	h := c.Writer.Header()
	if strings.HasPrefix(name, "/assets/") {
		h.Set("Cache-Control", "public, max-age=31536000, immutable")
	} else {
		h.Set("Cache-Control", "public, max-age=3600")
	}
	h.Set("Vary", "Accept-Encoding")
	if f.small != nil && strings.Contains(c.GetHeader("Accept-Encoding"), "gzip") {
		h.Set("Content-Encoding", "gzip")
		c.Data(http.StatusOK, f.kind, f.small)
		return
	}
	c.Data(http.StatusOK, f.kind, f.plain)
}

// familyPlace is where the pages of families lie.
const familyPlace = "/home/"

// manifest lets a family's page be put on the home screen of a phone (W3C Web Application Manifest). It names nobody.
func manifest(c *gin.Context, start string) {
	c.Header("Cache-Control", "no-cache")
	c.Header("Content-Type", "application/manifest+json")
	c.JSON(http.StatusOK, gin.H{
		"name": "Practice", "short_name": "Practice", "start_url": start, "scope": start, "display": "standalone", "background_color": "#f7f1e5",
		"theme_color": "#f7f1e5",
		"icons":       []gin.H{{"src": "/ladder.svg", "sizes": "any", "type": "image/svg+xml", "purpose": "any"}},
	})
}

func (p *page) home(c *gin.Context, page []byte) {
	nonce := rand.Text()
	h := c.Writer.Header()
	h.Set(
		"Content-Security-Policy",
		strings.Replace(h.Get("Content-Security-Policy"), "style-src 'self'", "style-src 'self' 'nonce-"+nonce+"'", 1),
	)
	h.Set("Cache-Control", "no-cache")
	c.Data(http.StatusOK, "text/html; charset=utf-8", bytes.ReplaceAll(page, []byte(noncePlace), []byte(nonce)))
}
