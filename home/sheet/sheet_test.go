package sheet

import (
	"bytes"
	"os"
	"os/exec"
	"path/filepath"
	"regexp"
	"strings"
	"testing"
	"time"

	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"patientladder/core/notation/abc"
	"patientladder/core/notation/engrave"
)

var made = time.Date(2026, 5, 4, 18, 0, 0, 0, time.UTC)

func excerpt(t require.TestingT) *engrave.Drawing {
	pieces, err := abc.Read([]byte("X:1\nL:1/8\nM:4/4\nK:D\n(DEFG) A2 [FA]2|d4 z2 A2|"))
	require.NoError(t, err)
	d := engrave.Stretch(pieces[0], 0, 8, nil, ExcerptWidth)
	return &d
}

func week(items int, words string, d *engrave.Drawing) Sheet {
	s := Sheet{
		Heading: "Nell · piano · A studio", Title: "Practice from Tuesday, 5 May", Dose: "As many times as the student has years.", Caution: "Pain means stop and rest.",
		NotYet: []string{"“Rowing Home”: the left hand, and both hands together, until it was taught"}, LeftOut: []string{"“Rowing Home” bars 5–8"},
		Hands: []Hand{{Name: "left hand", Left: true, Fingers: [5]string{"1", "2", "3", "4", "5"}}}, Page: "http://127.0.0.1/home/abc", Made: made,
	}
	for _, name := range []string{"Tuesday", "Wednesday", "Thursday", "Friday", "Saturday", "Sunday", "Monday"} {
		day := Day{Name: name, Minutes: "about 12 min", Focus: "loose shoulders"}
		for range items {
			day.Items = append(day.Items, Item{Label: "Small piece, 3 min", Title: "Rowing Home", Where: "bars 1–2", Only: "Right hand", Boxes: 7, Words: words, Excerpt: d})
		}
		s.Days = append(s.Days, day)
	}
	s.Days[6] = Day{Name: "Monday", Rest: true}
	return s
}

func pages(t require.TestingT, pdf []byte) int {
	require.True(t, bytes.HasPrefix(pdf, []byte("%PDF-")))
	return len(regexp.MustCompile(`/Type /Page\n`).FindAll(pdf, -1))
}

// However full the week is, the sheet is one page, and what must not be missed is on it.
func TestItIsAlwaysOnePage(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		words := strings.Repeat("Say up, down or same aloud, then play it slowly. ", rapid.IntRange(0, 6).Draw(t, "words"))
		var d *engrave.Drawing
		if rapid.Bool().Draw(t, "notes") {
			d = excerpt(t)
		}
		s := week(rapid.IntRange(0, 25).Draw(t, "items"), words, d)
		s.Days[0].Items = append(s.Days[0].Items, Item{Title: rapid.StringN(0, 200, -1).Draw(t, "title"), Boxes: rapid.IntRange(0, 99).Draw(t, "boxes"), Joined: true})
		pdf, err := s.PDF()
		require.NoError(t, err)
		require.Equal(t, 1, pages(t, pdf))
	})
	p, err := newPen(made)
	require.NoError(t, err)
	s := week(40, "words", excerpt(t))
	s.fit(p)
	require.LessOrEqual(t, s.height(p), pageHeight-2*margin, "the last resort fits")
}

func TestAUsualWeekKeepsItsNotesAndWords(t *testing.T) {
	s := week(4, "Say up, down or same aloud, then play it slowly.", excerpt(t))
	p, err := newPen(made)
	require.NoError(t, err)
	s.fit(p)
	require.True(t, p.excerpts && p.words)
	require.Greater(t, p.size, 0.85, "and can be read from the stand")
}

// Read back by poppler's pdftotext where it is installed: the text is there as text.
func TestTheTextCanBeReadBack(t *testing.T) {
	if _, err := exec.LookPath("pdftotext"); err != nil {
		t.Skip("pdftotext is not installed")
	}
	pdf, err := week(3, "Name the first note.", excerpt(t)).PDF()
	require.NoError(t, err)
	file := filepath.Join(t.TempDir(), "sheet.pdf")
	require.NoError(t, os.WriteFile(file, pdf, 0o600))
	text, err := exec.Command("pdftotext", "-layout", file, "-").Output()
	require.NoError(t, err)
	for _, want := range []string{"Practice from Tuesday, 5 May", "Not yet", "Right hand only", "Name the first note.", "A day of rest.", "Pain means stop"} {
		require.Contains(t, string(text), want)
	}
}

// On a copy in black and white nothing is lost: only black and greys are used.
func TestItIsBlackAndWhite(t *testing.T) {
	p, err := newPen(made)
	require.NoError(t, err)
	p.doc.SetCompression(false)
	p.attempt = attempts()[0]
	p.doc.AddPage()
	week(3, "x", excerpt(t)).draw(p)
	var out bytes.Buffer
	require.NoError(t, p.doc.Output(&out))
	colours := regexp.MustCompile(`(?m)^([\d.]+) ([\d.]+) ([\d.]+) (?:rg|RG)$`).FindAllSubmatch(out.Bytes(), -1)
	for _, c := range colours {
		require.True(t, bytes.Equal(c[1], c[2]) && bytes.Equal(c[2], c[3]), "%s", c[0])
	}
	require.Contains(t, out.String(), " c\n", "the notes are drawn as curves")
}

func TestTheSameWeekGivesTheSameSheet(t *testing.T) {
	a, err := week(2, "x", excerpt(t)).PDF()
	require.NoError(t, err)
	b, err := week(2, "x", excerpt(t)).PDF()
	require.NoError(t, err)
	require.Equal(t, a, b)
}

func TestLongWordsAreBroken(t *testing.T) {
	p, err := newPen(made)
	require.NoError(t, err)
	p.size = 1
	p.doc.SetFont(plain, "", usual)
	lines := p.lines("Rinderkennzeichnungsfleischetikettierungsüberwachung is long", 20)
	require.Greater(t, len(lines), 2)
	for _, l := range lines {
		require.LessOrEqual(t, p.doc.GetStringWidth(l), 20.0, l)
	}
	require.Equal(t, "Rinderkennzeichnungsfleischetikettierungsüberwachungislong", strings.ReplaceAll(strings.Join(lines, ""), " ", ""))
	require.Equal(t, "ab", printable("a\U0001F3B5b"))
}
