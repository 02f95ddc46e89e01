package wording

import (
	"cmp"
	"fmt"
	"slices"
	"strings"

	"patientladder/core/planning/curriculum"
)

// Library says what a studio has for an instrument: books with so many pieces, and pieces without a book.
func Library(instrument string, books, pieces, loose int) string {
	if books+loose == 0 {
		return fmt.Sprintf("Nothing for %s in your library yet.", instrument)
	}
	if books == 0 {
		return fmt.Sprintf("No book for %s yet; %s without one.", instrument, Counted(loose, "piece"))
	}
	return fmt.Sprintf(
		"%s for %s with %s, and %s without a book.",
		Capital(Counted(books, "book")),
		instrument,
		Counted(pieces, "piece"),
		Counted(loose, "piece"),
	)
}

// TypicalPlayer says for whom the jumps of a book are shown where no student is chosen, without a capital.
func TypicalPlayer(students int) string {
	return fmt.Sprintf("a typical student, who brings what a typical one of %s has learned elsewhere", Counted(students, "student"))
}

// Book says how a book is graded.
func Book(g curriculum.Gradation) string {
	if len(g.Lines) == 0 {
		return "There is nothing in it yet."
	}
	out := fmt.Sprintf("%s, %s", Counted(len(g.Lines), "piece"), Counted(len(g.Skills), "skill"))
	if jumps := g.Jumps(); len(jumps) > 0 {
		largest := slices.MaxFunc(jumps, func(a, b curriculum.Line) int { return cmp.Compare(a.Leap.Size, b.Leap.Size) })
		out += fmt.Sprintf("; %s, the largest to %s (%.1f)", Counted(len(jumps), "big jump"), Quoted(largest.Material.Title), largest.Leap.Size)
	} else {
		out += "; no big jump after the beginning"
	}
	if len(g.Once) > 0 {
		out += fmt.Sprintf("; %s never repeated", Counted(len(g.Once), "skill"))
	}
	return Capital(out) + "."
}

// Granted says of what a book takes for granted how it was found.
func Granted(n curriculum.Needs) string {
	var text string
	switch {
	case n.Own:
		text = "As you wrote it."
	case len(n.List) == 0:
		return "Nothing is known of what the first pieces of this book ask for."
	default:
		text = "Its first " + Counted(n.First, "piece") + " use these again and again."
	}
	if n.Forerunner != "" {
		text += " “" + n.Forerunner + "” before it teaches most of them."
	}
	return text
}

// GrantedIn says which first pieces ask for a skill, and whether the book before teaches it.
func GrantedIn(r curriculum.Requirement, forerunner string) string {
	if len(r.Pieces) == 0 {
		return ""
	}
	var titles []string
	for _, m := range r.Pieces[:min(len(r.Pieces), 3)] {
		titles = append(titles, "“"+m.Title+"”")
	}
	text := "in " + List(titles)
	if r.Taught && forerunner != "" {
		text += "; taught in “" + forerunner + "”"
	}
	return text
}

// NotImported says why nothing of a file was brought in: at most three reasons, and how many more there are.
func NotImported(problems []string) string {
	more := ""
	if n := len(problems) - mostProblems; n > 0 {
		more = fmt.Sprintf(", and %d more", n)
		problems = problems[:mostProblems]
	}
	return "Nothing was brought in. " + Capital(strings.Join(problems, "; ")) + more + "."
}

// InLibrary says which pieces of a file are in the library already; at least one.
func InLibrary(titles []string) string {
	quoted := make([]string, len(titles))
	for i, t := range titles {
		quoted[i] = Quoted(t)
	}
	switch n := len(quoted) - mostProblems; {
	case n > 0:
		return fmt.Sprintf("%s and %d more are in the library already", strings.Join(quoted[:mostProblems], ", "), n)
	case len(quoted) == 1:
		return quoted[0] + " is in the library already"
	}
	return List(quoted) + " are in the library already"
}

// mostProblems is how many reasons are said.
const mostProblems = 3

// Compared says how two books lie beside each other: what both teach, what each alone, and in which order.
func Compared(c curriculum.Comparison, a, b string) string {
	out := fmt.Sprintf(
		"%s in both, %s only in “%s”, %s only in “%s”",
		Capital(Counted(len(c.Shared), "skill")),
		Figures(len(c.OnlyA), "skill"),
		a,
		Figures(len(c.OnlyB), "skill"),
		b,
	)
	if len(c.Shared) > 1 {
		out += "; " + sameOrder(c.Agreement)
	}
	return out + "."
}

// sameOrder says an agreement of two orders, Kendall's tau.
func sameOrder(tau float64) string {
	switch {
	case tau > 0.8:
		return "they come in nearly the same order"
	case tau > 0.4:
		return "they come in much the same order"
	case tau > -0.2:
		return "they come in quite another order"
	}
	return "they come nearly the other way round"
}
