package musicxml

import (
	"archive/zip"
	"bytes"
	"fmt"
	"io"
	"path"
	"strings"
)

// mostEntries is the largest number of files in a compressed score; real ones hold two or three.
const mostEntries = 200

// Unpack returns the score inside a compressed MusicXML file (.mxl), or the
// data themselves when they are not compressed. The container names the score;
// where it does not, the first score in the archive is taken. No more than
// limits.Bytes are ever unpacked, so that a small archive cannot become a huge
// one. An error is an *Error.
func Unpack(data []byte, limits Limits) ([]byte, error) {
	if !bytes.HasPrefix(data, []byte("PK\x03\x04")) {
		return data, nil
	}
	if len(data) > limits.Bytes {
		return nil, tooBig(len(data), limits)
	}
	archive, err := zip.NewReader(bytes.NewReader(data), int64(len(data)))
	if err != nil {
		return nil, &Error{What: "the compressed score is damaged: it cannot be opened as an archive"}
	}
	if len(archive.File) > mostEntries {
		return nil, &Error{What: fmt.Sprintf("the archive holds %d files; a compressed score holds two or three", len(archive.File))}
	}
	name, err := rootFile(archive, limits)
	if err != nil {
		return nil, err
	}
	for _, f := range archive.File {
		if f.Name == name || name == "" && isScore(f.Name) {
			return expand(f, limits)
		}
	}
	if name != "" {
		return nil, &Error{What: fmt.Sprintf("the archive names “%s” as its score, but does not hold it", short(name))}
	}
	return nil, &Error{What: "the archive holds no MusicXML score"}
}

// rootFile reads which file the container names; empty when there is no container.
func rootFile(archive *zip.Reader, limits Limits) (string, error) {
	for _, f := range archive.File {
		if f.Name != "META-INF/container.xml" {
			continue
		}
		data, err := expand(f, limits)
		if err != nil {
			return "", err
		}
		text, err := decoded(data)
		if err != nil {
			return "", nil // a container that cannot be read: take the first score
		}
		for t := newTokens(text, limits.Depth); ; {
			k, el, _, err := t.next()
			if err != nil {
				return "", nil // a container without a root file: take the first score
			}
			if k == opens && el.name == "rootfile" {
				kind := attr(el, "media-type")
				if kind == "" || strings.Contains(kind, "musicxml") {
					return attr(el, "full-path"), nil
				}
			}
		}
	}
	return "", nil
}

func isScore(name string) bool {
	ext := strings.ToLower(path.Ext(name))
	return (ext == ".xml" || ext == ".musicxml") && !strings.HasPrefix(name, "META-INF/")
}

// expand unpacks one file, but never beyond the limit.
func expand(f *zip.File, limits Limits) ([]byte, error) {
	r, err := f.Open()
	if err != nil {
		return nil, &Error{What: fmt.Sprintf("“%s” in the archive cannot be unpacked", short(f.Name))}
	}
	defer r.Close()
	data, err := io.ReadAll(io.LimitReader(r, int64(limits.Bytes)+1))
	switch {
	case err != nil:
		return nil, &Error{What: fmt.Sprintf("“%s” in the archive is damaged", short(f.Name))}
	case len(data) > limits.Bytes:
		return nil, &Error{What: fmt.Sprintf("the archive unpacks to more than %.0f MB", mb(limits.Bytes))}
	}
	return data, nil
}

func tooBig(n int, limits Limits) error {
	return &Error{What: fmt.Sprintf("the file has %.1f MB; a score may have %.1f MB at most", mb(n), mb(limits.Bytes))}
}
