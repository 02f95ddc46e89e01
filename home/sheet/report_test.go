package sheet

import (
	"bytes"
	"fmt"
	"strings"
	"testing"
	"time"

	"github.com/stretchr/testify/require"
)

// paged counts the pages of a document, and sees that it is one.
func paged(t *testing.T, data []byte) int {
	t.Helper()
	require.True(t, bytes.HasPrefix(data, []byte("%PDF-")))
	return bytes.Count(data, []byte("/Type /Page\n"))
}

func someReport(lines, pieces int) Report {
	r := Report{
		Heading: "Ines Calloway, Calloway Studio",
		Title:   "Report: Maren Quill, piano",
		Days:    "3 February – 4 May 2026",
		Made:    time.Date(2026, 5, 4, 0, 0, 0, 0, time.UTC),
	}
	for i := range lines {
		r.Lines = append(
			r.Lines,
			fmt.Sprintf(
				"Sentence %d says what was learned, at some length, so that it fills more than a line of the page and is still read with pleasure.",
				i,
			),
		)
	}
	list := List{Title: "Pieces"}
	for i := range pieces {
		r.Way = append(
			r.Way,
			Stretch{
				Title: fmt.Sprint("Piece ", i),
				From:  float64(i) / float64(pieces),
				To:    float64(i+1) / float64(pieces),
				Lane:  i % 3,
				Wide:  0.4,
				Open:  i == pieces-1,
			},
		)
		list.Rows = append(list.Rows, Row{What: fmt.Sprint("Piece ", i), By: "traditional", When: "4 May"})
	}
	r.Months, r.Lists = []Month{{At: 0.3, Name: "Mar"}}, []List{list, {Title: "Nothing"}}
	return r
}

// A report has one page where it can, else two, and never more.
func TestAReportHasOnePageOrTwo(t *testing.T) {
	for _, c := range []struct{ lines, pieces, pages int }{{5, 0, 1}, {8, 6, 1}, {14, 28, 2}, {16, 200, 2}, {40, 60, 2}} {
		data, err := someReport(c.lines, c.pieces).PDF()
		require.NoError(t, err)
		require.Equal(t, c.pages, paged(t, data), "%d lines, %d pieces", c.lines, c.pieces)
	}
	empty, err := Report{Title: "Report"}.PDF()
	require.NoError(t, err)
	require.Equal(t, 1, paged(t, empty))
}

// The letters are as large as fit: a short report is written larger than a long one.
func TestAReportIsWrittenAsLargeAsFits(t *testing.T) {
	used := func(r Report) (out []int) {
		for _, size := range sizes() {
			_, pages, err := r.at(size, 2)
			require.NoError(t, err)
			out = append(out, pages)
		}
		return out
	}
	require.Equal(t, []int{1, 1, 1, 1, 1}, used(someReport(5, 3)))
	long := used(someReport(10, 12))
	require.Equal(t, 2, long[0])
	require.IsNonIncreasing(t, long)
}

// Any title is drawn: long ones are cut in the picture, letters that the fonts do not hold are left out, flats are written.
func TestAnyTitleIsDrawnInAReport(t *testing.T) {
	for _, title := range []string{"E♭ major and F♯ minor", strings.Repeat("Long", 60), "小舟", "Лодка", "🎹 Boat", ""} {
		r := someReport(3, 3)
		r.Title, r.Way[0].Title, r.Lists[0].Rows[0].What = title, title, title
		data, err := r.PDF()
		require.NoError(t, err)
		require.Equal(t, 1, paged(t, data), title)
	}
}

// A certificate has one page, whatever is written on it.
func TestACertificateHasOnePage(t *testing.T) {
	for _, name := range []string{"Ada Moss", strings.Repeat("Marchetti-Brandt van der Hoeven ", 4), "Лодка"} {
		data, err := Certificate{
			Name: name,
			Says: "has learned all twelve pieces of",
			What: "Tideway Album",
			When: "4 May 2026",
			By:   "Ines Calloway",
		}.PDF()
		require.NoError(t, err)
		require.Equal(t, 1, paged(t, data))
	}
}

// Cells with commas and quotation marks are kept (RFC 4180), and what a spreadsheet would take for a formula is text.
func TestATableForSpreadsheets(t *testing.T) {
	data, err := CSV([]string{"who", "piece"}, [][]string{{"Ada, Moss", `"Fog"`}, {"=1+1", "-2"}, {"", "+x"}})
	require.NoError(t, err)
	require.Equal(t, "who,piece\n\"Ada, Moss\",\"\"\"Fog\"\"\"\n'=1+1,'-2\n,'+x\n", string(data))
}
