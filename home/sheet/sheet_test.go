package sheet

import (
	"bytes"
	"fmt"
	"os"
	"os/exec"
	"path/filepath"
	"regexp"
	"strconv"
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
	s.fit(p)
	require.LessOrEqual(t, s.height(p), pageHeight-margin, "the last resort fits")
	b := back{s.Tongue, s.Heading, s.cards()}
	require.Len(t, b.cards, 30)
	b.fit(p)
	require.True(t, b.fits(p))
}

// What is the same has one card, and letters go on after Z.
func TestOneCardForWhatIsTheSame(t *testing.T) {
	s := week(2, "", excerpt(t))
	s.Days[1].Items[0].Card = card("0 0", excerpt(t))
	cards := s.cards()
	s.letter(cards)
	require.Len(t, cards, 11)
	require.Equal(t, "A", s.Days[1].Items[0].Card.letter)
	require.Equal(
		t,
		[]string{"A", "B", "Z", "AA", "AZ", "BA"},
		[]string{letterOf(0), letterOf(1), letterOf(25), letterOf(26), letterOf(51), letterOf(52)},
	)
}

// Where not all cards stand on the back at letters that can be read, what the parent is told goes first, then the cards of learned
// pieces, the last before the others; those that stay have their notes, hands, tempo and by what they are good enough.
func TestLearnedPiecesLoseTheirCardsFirst(t *testing.T) {
	p, err := newPen(made)
	require.NoError(t, err)
	s := Sheet{Tongue: tongue.Of(tongue.English), Heading: "Nell"}
	var day Day
	for i := range 24 {
		c := card(fmt.Sprint(i), excerpt(t))
		c.Learned = i%2 == 1
		day.Items = append(day.Items, Item{Title: "Tune", Card: c})
	}
	s.Days = []Day{day}
	b := back{s.Tongue, s.Heading, s.cards()}
	b.fit(p)
	s.letter(b.cards)
	require.InDelta(t, 1, p.size, 0.05)
	var got strings.Builder
	for _, it := range s.Days[0].Items {
		if it.Card == nil {
			got.WriteString("-")
		} else {
			got.WriteString(it.Card.letter)
		}
	}
	require.Equal(t, "A-B-C-D-E-F-G-H-I-J-K-L-", got.String())
	few := back{s.Tongue, s.Heading, b.cards[:3]}
	few.fit(p)
	require.Equal(t, []any{1.12, true, 3}, []any{p.size, p.words, len(few.cards)})
}

// Nothing is written under nine points, however full the week is, and a keyboard is four centimetres wide at the least.
func TestEverythingCanBeReadAtArmsLength(t *testing.T) {
	for _, items := range []int{1, 8, 40} {
		p, err := newPen(made)
		require.NoError(t, err)
		p.doc.SetCompression(false)
		s := week(items, strings.Repeat("Say up, down or same aloud, then play it slowly. ", 4), excerpt(t))
		b := back{s.Tongue, s.Heading, s.cards()}
		b.fit(p)
		s.letter(b.cards)
		size := p.attempt
		s.fit(p)
		p.doc.AddPage()
		s.draw(p)
		p.attempt = size
		p.doc.AddPage()
		require.True(t, b.draw(p))
		var out bytes.Buffer
		require.NoError(t, p.doc.Output(&out))
		fonts := regexp.MustCompile(`/F\S+ ([\d.]+) Tf`).FindAllSubmatch(out.Bytes(), -1)
		require.NotEmpty(t, fonts)
		for _, f := range fonts {
			points, err := strconv.ParseFloat(string(f[1]), 64)
			require.NoError(t, err)
			require.GreaterOrEqual(t, points, 9.0, "%d things a day", items)
		}
		for _, keys := range [][]Key{{{MIDI: 60}}, {{MIDI: 62}, {MIDI: 66}}, {{MIDI: 36}, {MIDI: 72}}} {
			board := Board{Keys: keys}
			require.GreaterOrEqual(t, board.across(p.size, laneWidth), 40.0)
			require.LessOrEqual(t, board.across(p.size, laneWidth), laneWidth)
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
	cards := s.cards()
	s.letter(cards)
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
