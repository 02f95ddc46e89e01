package musicxml

import (
	"archive/zip"
	"bytes"
	"fmt"
	"strings"
	"testing"

	"github.com/stretchr/testify/require"
)

const container = `<?xml version="1.0"?><container><rootfiles><rootfile full-path="%s"/></rootfiles></container>`

// packed makes an archive of names and contents, in pairs.
func packed(t testing.TB, pairs ...string) []byte {
	t.Helper()
	var b bytes.Buffer
	w := zip.NewWriter(&b)
	for i := 0; i < len(pairs); i += 2 {
		f, err := w.Create(pairs[i])
		require.NoError(t, err)
		_, err = f.Write([]byte(pairs[i+1]))
		require.NoError(t, err)
	}
	require.NoError(t, w.Close())
	return b.Bytes()
}

func TestCompressedScores(t *testing.T) {
	song := part(fourFour + n("C4", 8))
	other := part(fourFour + n("D4", 8))
	for name, data := range map[string][]byte{
		"named by the container": packed(t, "META-INF/container.xml", fmt.Sprintf(container, "music/song.xml"), "a.xml", other, "music/song.xml", song),
		"without a container":    packed(t, "cover.png", "x", "song.musicxml", song),
		"container without root": packed(t, "META-INF/container.xml", "<container/>", "song.xml", song),
	} {
		s, err := Read(data)
		require.NoError(t, err, name)
		require.Equal(t, []string{"0+4 60"}, sounds(s), name)
	}
}

func TestBadArchivesGetOneSentence(t *testing.T) {
	good := packed(t, "song.xml", part(fourFour+n("C4", 8)))
	var many []string
	for i := range mostEntries + 1 {
		many = append(many, fmt.Sprintf("%d.txt", i), "")
	}
	for says, data := range map[string][]byte{
		"cannot be opened":        good[:len(good)-30],
		"no MusicXML score":       packed(t, "readme.txt", "hello"),
		"does not hold it":        packed(t, "META-INF/container.xml", fmt.Sprintf(container, "gone.xml"), "song.xml", "x"),
		"more than 12 MB":         packed(t, "song.xml", strings.Repeat(" ", 13<<20)),
		"another archive":         packed(t, "song.xml", string(good)),
		"files":                   packed(t, many...),
		"does not begin like XML": packed(t, "song.xml", "Dear teacher"),
	} {
		_, err := Read(data)
		var e *Error
		require.ErrorAs(t, err, &e, says)
		require.ErrorContains(t, err, says)
	}
	// One flipped bit inside the packed data is noticed by its checksum.
	at := bytes.Index(good, []byte("song.xml")) + 20
	good[at] ^= 1
	_, err := Read(good)
	require.Error(t, err)
}

// A score ordered by time says the same as one ordered by part.
func TestOrderedByTime(t *testing.T) {
	head := `<part-list><score-part id="A"/><score-part id="B"/></part-list>`
	a := []string{fourFour + n("C5", 4, `<tie type="start"/>`) + n("C5", 4, `<tie type="stop"/>`), n("D5", 8)}
	b := []string{fourFour + n("C3", 8), n("G3", 2) + n("A3", 6)}
	byPart := "<score-partwise>" + head + fmt.Sprintf(
		`<part id="A"><measure number="1">%s</measure><measure number="2">%s</measure></part>`,
		a[0],
		a[1],
	) +
		fmt.Sprintf(
			`<part id="B"><measure number="1">%s</measure><measure number="2">%s</measure></part></score-partwise>`,
			b[0],
			b[1],
		)
	byTime := "<score-timewise>" + head + fmt.Sprintf(
		`<measure number="1"><part id="A">%s</part><part id="B">%s</part></measure>`,
		a[0],
		b[0],
	) +
		fmt.Sprintf(
			`<measure number="2"><part id="A">%s</part><part id="B">%s</part></measure></score-timewise>`,
			a[1],
			b[1],
		)
	x, y := read(t, byPart), read(t, byTime)
	require.Equal(t, x.Bars, y.Bars)
	require.Equal(t, sounds(x), sounds(y))
	require.Equal(t, []string{"0+4 48", "0+4 72", "4+1 55", "4+4 74", "5+3 57"}, sounds(y))

	_, err := Read([]byte(strings.Replace(byTime, `<part id="B">`, `<part id="A">`, 1)))
	require.ErrorContains(t, err, "comes twice")
	mended := read(t, strings.Replace(byTime, n("D5", 8), n("D5", 9), 1))
	require.Equal(t, "part A, bar 2", mended.Skipped[0].Where)
}
