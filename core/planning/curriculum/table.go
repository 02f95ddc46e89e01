package curriculum

import (
	"bytes"
	"encoding/csv"
	"errors"
	"fmt"
	"io"
	"slices"
	"strconv"
	"strings"
	"unicode/utf8"

	"patientladder/core/library/material"
	"patientladder/core/library/skill"
	"patientladder/core/library/titles"
	"patientladder/core/notation/score"
)

// Field is what a column of a spreadsheet can hold.
type Field string

// The fields. Only the title must be there.
const (
	Ignore       Field = ""
	Title        Field = "title"
	Composer     Field = "composer"
	StrandOf     Field = "strand"
	Unit         Field = "unit"
	Page         Field = "page"
	Tempo        Field = "tempo"
	Bars         Field = "bars"
	DistinctBars Field = "distinctBars"
	TextureOf    Field = "texture"
	Skills       Field = "skills"
	Focus        Field = "focusPoints"
	Tags         Field = "tags"
)

// Fields lists the fields in the order in which they are written.
func Fields() []Field {
	return []Field{Title, Composer, StrandOf, Unit, Page, Tempo, Bars, DistinctBars, TextureOf, Skills, Focus, Tags}
}

// usual are the words by which columns are known, in small letters.
var usual = map[string]Field{
	"title": Title, "piece": Title, "name": Title, "song": Title, "tune": Title,
	"composer": Composer, "by": Composer, "author": Composer, "strand": StrandOf, "kind": StrandOf, "type": StrandOf,
	"unit": Unit, "chapter": Unit, "section": Unit, "part": Unit, "page": Page, "p.": Page, "p": Page, "tempo": Tempo, "bpm": Tempo,
	"speed": Tempo,
	"bars":  Bars, "measures": Bars, "length": Bars, "different bars": DistinctBars, "distinct bars": DistinctBars,
	"distinctbars": DistinctBars,
	"texture":      TextureOf, "hands": TextureOf, "skills": Skills, "demands": Skills, "teaches": Skills, "asks for": Skills, "new": Skills,
	"focus": Focus, "focus points": Focus, "focuspoints": Focus, "tags": Tags, "mood": Tags, "like": Tags, "character": Tags,
}

// Table is a spreadsheet as text.
type Table struct {
	Columns []string
	Rows    [][]string
	// Lines are the line numbers of the rows in the file, from 1.
	Lines []int
}

// mostSamples is how many cells show what a column holds.
const mostSamples = 3

// Samples are the first cells of a column, from 0, that hold anything.
func (t Table) Samples(column int) []string {
	out := []string{}
	for _, row := range t.Rows {
		if column < len(row) && row[column] != "" && len(out) < mostSamples {
			out = append(out, row[column])
		}
	}
	return out
}

// ReadTable reads a spreadsheet saved as text: commas, semicolons or tabs
// between the columns, in UTF-8 or an eight-bit Western encoding, with the names
// of the columns in the first row. Empty rows are passed over.
func ReadTable(data []byte) (Table, error) {
	var t Table
	if len(data) > MostBytes {
		return t, fmt.Errorf("the file is larger than %d MB", MostBytes>>20)
	}
	data = bytes.TrimPrefix(data, []byte("\xef\xbb\xbf"))
	if bytes.HasPrefix(data, []byte("PK")) || bytes.ContainsRune(data, 0) {
		return t, errors.New("this is a workbook or another binary file: save the sheet as CSV first")
	}
	if !utf8.Valid(data) {
		data = western(data)
	}
	r := csv.NewReader(bytes.NewReader(data))
	r.Comma, r.FieldsPerRecord, r.LazyQuotes, r.TrimLeadingSpace = separator(data), -1, true, true
	for {
		row, err := r.Read()
		if errors.Is(err, io.EOF) {
			break
		}
		if err != nil {
			return t, fmt.Errorf("the table is damaged: %w", err)
		}
		line, _ := r.FieldPos(0)
		for i := range row {
			row[i] = strings.TrimSpace(row[i])
			if cell := row[i]; len(cell) > 1 && cell[0] == '\'' && formula(cell[1:]) {
				row[i] = cell[1:]
			}
		}
		switch {
		case strings.Join(row, "") == "":
		case t.Columns == nil:
			t.Columns = row
		case len(t.Rows) == MostMaterials:
			return t, fmt.Errorf("the table has more than %d rows", MostMaterials)
		default:
			t.Rows = append(t.Rows, row)
			t.Lines = append(t.Lines, line)
		}
	}
	if len(t.Columns) == 0 {
		return t, errors.New("the table is empty")
	}
	return t, nil
}

// western reads bytes as Latin-1, which is what spreadsheets of old write.
func western(data []byte) []byte {
	out := make([]rune, len(data))
	for i, b := range data {
		out[i] = rune(b)
	}
	return []byte(string(out))
}

// separator is the one of comma, semicolon and tab that the first line holds most of.
func separator(data []byte) rune {
	first, _, _ := bytes.Cut(data, []byte("\n"))
	best, most := ',', 0
	for _, c := range []rune{',', ';', '\t'} {
		if n := bytes.Count(first, []byte(string(c))); n > most {
			best, most = c, n
		}
	}
	return best
}

// Guess matches columns to fields by their names; a field is guessed once.
func Guess(columns []string) []Field {
	out := make([]Field, len(columns))
	taken := map[Field]bool{}
	for i, c := range columns {
		if f, ok := usual[strings.ToLower(strings.TrimSpace(c))]; ok && !taken[f] {
			out[i], taken[f] = f, true
		}
	}
	return out
}

// Fault is what is wrong with one row.
type Fault struct {
	// Line in the file, from 1; Column is the name of the column, or "".
	Line   int
	Column string
	// Title of the row, as far as there is one.
	Title string
	Says  string
	// Kept says that the row is brought in all the same: it is pointed out, and no fault.
	Kept bool
}

// Listed is a table of the titles of a book as somebody wrote them down, one a line, with the unit and the page where a line
// says them.
func Listed(text string) (Table, []Field) {
	t := Table{Columns: []string{"Title", "Unit", "Page"}}
	for _, e := range titles.Read(text) {
		page := ""
		if e.Page > 0 {
			page = strconv.Itoa(e.Page)
		}
		t.Rows, t.Lines = append(t.Rows, []string{e.Title, e.Unit, page}), append(t.Lines, e.Line)
	}
	return t, []Field{Title, Unit, Page}
}

// Materials reads the rows of a table, column by column as they were matched.
// Every row that has a fault is named and left out of the result; a title that stands there twice is pointed out and kept. Skills are
// found by id or by name, in any case, or by a teacher's words; "passing the thumb under: 0.5" gives a weight. What a word that is
// no name of a skill was taken for is told in spoken, in the order of the rows.
func (t Table) Materials(
	fields []Field,
	strand material.Strand,
	skills skill.Catalogue,
	words Words,
) (out []Material, faults []Fault, spoken []Spoken, err error) {
	title := -1
	used := map[Field]bool{}
	for i, f := range fields {
		if f == Title {
			title = i
		}
		if f != Ignore && used[f] {
			return nil, nil, nil, fmt.Errorf("two columns are matched to %s", f)
		}
		used[f] = true
	}
	if title < 0 {
		return nil, nil, nil, errors.New("no column is matched to the title")
	}
	named := newSkillNames(skills, words)
	seen := map[string]int{}
	for r, row := range t.Rows {
		m := Material{Strand: strand}
		before, pointed := len(faults), 0
		fault := func(i int, format string, args ...any) {
			f := Fault{Line: t.Lines[r], Says: fmt.Sprintf(format, args...)}
			if i >= 0 && i < len(t.Columns) {
				f.Column = t.Columns[i]
			}
			if title < len(row) {
				f.Title = row[title]
			}
			faults = append(faults, f)
		}
		if len(row) > len(t.Columns) {
			fault(-1, "it has %d cells, and there are %d columns", len(row), len(t.Columns))
		}
		for i, f := range fields {
			if i < len(row) && row[i] != "" {
				if says := m.set(f, row[i], named); says != "" {
					fault(i, "%s", says)
				}
			}
		}
		key := strings.ToLower(m.Title + "\x00" + m.Unit)
		switch first, again := seen[key]; {
		case m.Title == "":
			fault(title, "there is no title")
		case again:
			fault(title, "the same title stands in line %d", first)
			faults[len(faults)-1].Kept = true
			pointed = 1
		default:
			seen[key] = t.Lines[r]
		}
		if m.DistinctBars > m.Bars && m.Bars > 0 {
			fault(-1, "there are more different bars (%d) than bars (%d)", m.DistinctBars, m.Bars)
		}
		if len(faults) == before+pointed {
			out = append(out, m)
		}
	}
	return out, faults, named.spoken, nil
}

// set reads one cell; it returns what is wrong with it, or "".
func (m *Material) set(f Field, cell string, named *skillNames) string {
	named.unknown = nil
	number := func(most int, into *int) string {
		n, err := strconv.Atoi(strings.TrimPrefix(strings.ToLower(cell), "p. "))
		if err != nil || n < 0 || n > most {
			return fmt.Sprintf("%q is not a number from 0 to %d", cell, most)
		}
		*into = n
		return ""
	}
	text := func(most int, into *string) string {
		if utf8.RuneCountInString(cell) > most {
			return fmt.Sprintf("it is longer than %d letters", most)
		}
		*into = cell
		return ""
	}
	switch f {
	case Title:
		return text(200, &m.Title)
	case Composer:
		return text(200, &m.Composer)
	case Unit:
		return text(100, &m.Unit)
	case Page:
		return number(10000, &m.Page)
	case Bars:
		return number(score.MostBars, &m.Bars)
	case DistinctBars:
		return number(score.MostBars, &m.DistinctBars)
	case Tempo:
		v, err := strconv.ParseFloat(strings.ReplaceAll(cell, ",", "."), 64)
		if err != nil || !(v >= 0 && v <= 1000) {
			return fmt.Sprintf("%q is not a tempo from 0 to 1000", cell)
		}
		m.Tempo = v
	case StrandOf:
		m.Strand = material.Strand(strings.ToLower(cell))
		if !knownStrand(m.Strand) {
			return fmt.Sprintf("%q is not a strand (%s)", cell, strandNames())
		}
	case TextureOf:
		m.Texture = material.Texture(strings.ToLower(cell))
		if m.Texture != material.OneLine && m.Texture != material.InTurn && m.Texture != material.Together {
			return fmt.Sprintf("%q is not a texture (%s, %s, %s)", cell, material.OneLine, material.InTurn, material.Together)
		}
	case Skills:
		return m.skills(cell, named)
	case Focus:
		m.FocusPoints = parts(cell)
		if len(m.FocusPoints) > 12 {
			return "there are more than 12 focus points"
		}
	case Tags:
		m.Tags = parts(cell)
		if len(m.Tags) > 12 {
			return "there are more than 12 tags"
		}
	}
	return ""
}

func (m *Material) skills(cell string, named *skillNames) string {
	for _, part := range named.parts(cell) {
		d := material.Demand{Skill: part, Weight: 1, Origin: "teacher"}
		if name, weight, ok := cutLast(part, ":"); ok {
			w, err := strconv.ParseFloat(strings.ReplaceAll(weight, ",", "."), 64)
			if err != nil || !(w > 0 && w <= 2) {
				return fmt.Sprintf("the weight %q of %q must be above 0 and at most 2", weight, name)
			}
			d.Skill, d.Weight = name, w
		}
		word := d.Skill
		if d.Skill = named.find(word); d.Skill == "" {
			continue
		}
		if slices.ContainsFunc(m.Demands, func(other material.Demand) bool { return other.Skill == d.Skill }) {
			if named.own(word) {
				continue // two of a teacher's words may mean one skill
			}
			return fmt.Sprintf("it asks for %q twice", part)
		}
		m.Demands = append(m.Demands, d)
	}
	if len(named.unknown) > 0 {
		return fmt.Sprintf("nobody knows the skill %q", strings.Join(named.unknown, ", "))
	}
	return ""
}

// cutLast cuts "name: 0.5" at its last colon when a number follows.
func cutLast(s, sep string) (before, after string, ok bool) {
	i := strings.LastIndex(s, sep)
	if i < 0 || i == len(s)-1 || !strings.ContainsAny(s[i+1:i+2]+s[len(s)-1:], "0123456789") {
		return s, "", false
	}
	return strings.TrimSpace(s[:i]), strings.TrimSpace(s[i+1:]), true
}

func parts(cell string) []string {
	var out []string
	for _, p := range strings.FieldsFunc(cell, func(r rune) bool { return r == ';' || r == '|' }) {
		if p = strings.TrimSpace(p); p != "" {
			out = append(out, p)
		}
	}
	return out
}

// WriteTable writes a source as a table that ReadTable reads back. A cell that a
// spreadsheet would take for a formula is kept as text by an apostrophe.
func WriteTable(s Source) ([]byte, error) {
	var b bytes.Buffer
	w := csv.NewWriter(&b)
	var head []string
	for _, f := range Fields() {
		head = append(head, string(f))
	}
	rows := [][]string{head}
	for _, m := range s.Materials {
		var asks []string
		for _, d := range m.Demands {
			ask := d.Skill
			if d.Weight != 1 {
				ask += ": " + strconv.FormatFloat(d.Weight, 'g', -1, 64)
			}
			asks = append(asks, ask)
		}
		row := []string{
			m.Title, m.Composer, string(m.Strand), m.Unit, count(m.Page), number(m.Tempo), count(m.Bars), count(m.DistinctBars),
			string(m.Texture), strings.Join(asks, "; "), strings.Join(m.FocusPoints, "; "), strings.Join(m.Tags, "; "),
		}
		for i, cell := range row {
			if formula(cell) {
				row[i] = "'" + cell
			}
		}
		rows = append(rows, row)
	}
	err := w.WriteAll(rows)
	return b.Bytes(), err
}

// formula says that a spreadsheet would take a cell for a formula.
func formula(cell string) bool { return cell != "" && strings.ContainsAny(cell[:1], "=+-@") }

func count(n int) string {
	if n == 0 {
		return ""
	}
	return strconv.Itoa(n)
}

func number(v float64) string {
	if v == 0 {
		return ""
	}
	return strconv.FormatFloat(v, 'g', -1, 64)
}
