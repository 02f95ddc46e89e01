package sheet

import (
	"bytes"
	"fmt"
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
	"patientladder/core/wording/tongue"
)

var made = time.Date(2026, 5, 4, 18, 0, 0, 0, time.UTC)

func excerpt(t require.TestingT) *engrave.Drawing {
	pieces, err := abc.Read([]byte("X:1\nL:1/8\nM:4/4\nK:D\n(DEFG) A2 [FA]2|d4 z2 A2|"))
	require.NoError(t, err)
	d := engrave.Stretch(pieces[0], 0, 8, engrave.Look{Width: ExcerptWidth})
	return &d
}

func week(items int, words string, d *engrave.Drawing) Sheet {
	s := Sheet{
		Tongue: tongue.Of(tongue.English), Heading: "Nell · piano · A studio", Title: "Practice from Tuesday, 5 May",
		Dose: "As many times as the student has years.", Caution: "Pain means stop and rest.",
		NotYet:  []string{"“Rowing Home”: the left hand, and both hands together, until it was taught"},
		LeftOut: []string{"“Rowing Home” bars 5–8"},
		Hands:   []Hand{{Name: "left hand", Left: true, Fingers: [5]string{"1", "2", "3", "4", "5"}}}, Page: "http://127.0.0.1/home/abc",
		Made: made,
	}
	for i, name := range []string{"Tuesday", "Wednesday", "Thursday", "Friday", "Saturday", "Sunday", "Monday"} {
		day := Day{Name: name, Minutes: "about 12 min", Focus: "loose shoulders"}
		for k := range items {
			it := Item{Label: "Small piece, 3 min", Title: "Rowing Home", Where: "bars 1–2", Only: "Right hand only", Boxes: 7, Words: words}
			if d != nil {
				it.Card = card(fmt.Sprint(i, k%5), d)
			}
			day.Items = append(day.Items, it)
		}
		s.Days = append(s.Days, day)
	}
	s.Days[6] = Day{Name: "Monday", Rest: true}
	return s
}

func card(key string, d *engrave.Drawing) *Card {
	return &Card{
		Key: key, Title: "Rowing Home", Where: "bars 1–2", Book: "Page 7 of “Harbour Steps”", Only: "Right hand only",
		Tempo: "Slowly, like strolling (48)", Say: "up · up · same",
		Parent: "Say the line together first. Then Nell plays it.", Good: "the same fingers each time", Excerpt: d,
		Signs: []Sign{{3, -1, 1}, {6, -1, -1}, {9, -1, 0}},
		Hands: []CardHand{
			{Start: "Right hand: finger 2 on D", Board: Board{Keys: []Key{{MIDI: 62, Label: "2", First: true}, {MIDI: 66, Label: "4"}}}},
		},
	}
}

func pages(t require.TestingT, pdf []byte) int {
	require.True(t, bytes.HasPrefix(pdf, []byte("%PDF-")))
	return len(regexp.MustCompile(`/Type /Page\n`).FindAll(pdf, -1))
}

// However full the week is, the sheet has two sides at the most, and what must not be missed is on it.
func TestItIsOneSheetOfPaper(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		words := strings.Repeat("Say up, down or same aloud, then play it slowly. ", rapid.IntRange(0, 6).Draw(t, "words"))
		var d *engrave.Drawing
		items := rapid.IntRange(0, 25).Draw(t, "items")
		sides := 1
		if rapid.Bool().Draw(t, "notes") {
			d = excerpt(t)
			if items > 0 {
				sides = 2
			}
		}
		s := week(items, words, d)
		s.Days[0].Items = append(
			s.Days[0].Items,
			Item{Title: rapid.StringN(0, 200, -1).Draw(t, "title"), Boxes: rapid.IntRange(0, 99).Draw(t, "boxes"), Joined: true},
		)
		pdf, err := s.PDF()
		require.NoError(t, err)
		require.Equal(t, sides, pages(t, pdf))
	})
	p, err := newPen(made)
	require.NoError(t, err)
	s := week(40, "words", excerpt(t))
	cards := s.lettered()
	s.fit(p)
	require.LessOrEqual(t, s.height(p), pageHeight-2*margin, "the last resort fits")
	require.Len(t, cards, 30)
	b := back{s.Tongue, s.Heading, cards}
	b.fit(p)
	require.True(t, b.fits(p), "thirty cards stand on the back, with their notes")
}

// What is the same has one card, and letters go on after Z.
func TestOneCardForWhatIsTheSame(t *testing.T) {
	s := week(2, "", excerpt(t))
	s.Days[1].Items[0].Card = card("0 0", excerpt(t))
	cards := s.lettered()
	require.Len(t, cards, 11)
	require.Equal(t, "A", s.Days[1].Items[0].Card.letter)
	require.Equal(
		t,
		[]string{"A", "B", "Z", "AA", "AZ", "BA"},
		[]string{letterOf(0), letterOf(1), letterOf(25), letterOf(26), letterOf(51), letterOf(52)},
	)
}

// The notes go last: what is said goes before the picture of the hand, and that before the notes.
func TestTheNotesGoLast(t *testing.T) {
	p, err := newPen(made)
	require.NoError(t, err)
	last := everything
	for _, n := range []int{1, 2, 3, 4, 8} {
		s := week(n, "", excerpt(t))
		b := back{s.Tongue, s.Heading, s.lettered()}
		b.fit(p)
		require.True(t, b.fits(p))
		require.GreaterOrEqual(t, p.trim, last, "%d", n)
		last = p.trim
		if n == 1 {
			require.Equal(t, everything, p.trim)
			require.Greater(t, p.size, 0.85, "and can be read from the stand")
		}
	}
}

// Read back by poppler's pdftotext where it is installed: the text is there as text.
func TestTheTextCanBeReadBack(t *testing.T) {
	if _, err := exec.LookPath("pdftotext"); err != nil {
		t.Skip("pdftotext is not installed")
	}
	pdf, err := week(1, "Name the first note.", excerpt(t)).PDF()
	require.NoError(t, err)
	file := filepath.Join(t.TempDir(), "sheet.pdf")
	require.NoError(t, os.WriteFile(file, pdf, 0o600))
	text, err := exec.Command("pdftotext", "-layout", file, "-").Output()
	require.NoError(t, err)
	for _, want := range []string{"Practice from Tuesday, 5 May", "Not yet", "Right hand only", "Name the first note.", "A day of rest.", "Pain means stop", "Right hand: finger 2 on D", "Good enough: the same fingers each time", "Page 7 of"} {
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
	s := week(3, "x", excerpt(t))
	cards := s.lettered()
	s.draw(p)
	p.doc.AddPage()
	back{s.Tongue, s.Heading, cards}.draw(p)
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
