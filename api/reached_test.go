package api_test

import (
	"io/fs"
	"os"
	"regexp"
	"strings"
	"testing"

	"github.com/stretchr/testify/require"

	"patientladder/api/contract"
)

// forPrograms are the operations that no page opens, each with who does.
var forPrograms = map[string]string{
	"GET /ladders/{ladder}/entries": "a program of the teacher's own that reads the log",
	"GET /teacher/{token}/calendar": "the calendar to which a teacher subscribes",
}

// Every operation of the contract is reached from a page, by a call or by a link, or is named as meant for programs: a way that
// stands in the contract and nowhere on a screen is of no use to a teacher.
func TestEveryOperationIsReachedFromAPage(t *testing.T) {
	var source strings.Builder
	require.NoError(t, fs.WalkDir(os.DirFS("../web/src"), ".", func(path string, d fs.DirEntry, err error) error {
		if err != nil || d.IsDir() || !strings.HasSuffix(path, ".ts") && !strings.HasSuffix(path, ".tsx") || strings.Contains(path, ".gen.") ||
			strings.Contains(path, ".test.") {
			return err
		}
		text, err := os.ReadFile("../web/src/" + path)
		source.Write(text)
		return err
	}))
	page := source.String()
	spec, err := contract.GetSpec()
	require.NoError(t, err)
	placeholder := regexp.MustCompile(`\\\{[a-z]+\\\}`)
	called := func(method, path string) bool {
		return regexp.MustCompile(`\.` + method + `\(\s*"` + regexp.QuoteMeta(path) + `"`).MatchString(page)
	}
	linked := func(path string) bool {
		return regexp.MustCompile(`/api` + placeholder.ReplaceAllLiteralString(regexp.QuoteMeta(path), `(\$\{[^}]*\}|[a-z]+)`) + "[`\"?$]").
			MatchString(page)
	}
	var lost []string
	for path, item := range spec.Paths.Map() {
		for method := range item.Operations() {
			name := method + " " + path
			_, other := forPrograms[name]
			reached := called(method, path) || method == "GET" && linked(path)
			if reached == other {
				lost = append(lost, name)
			}
		}
	}
	require.Empty(t, lost, "reached from no page, or named as meant for programs although a page opens it")
}
