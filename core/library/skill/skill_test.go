package skill

import (
	"testing"

	"github.com/stretchr/testify/require"
)

func TestStandardCatalogueHoldsTogether(t *testing.T) {
	c, err := Standard()
	require.NoError(t, err)
	require.GreaterOrEqual(t, len(c.All()), 60)
	require.Contains(t, c.Beneath("dotted-quarter-notes"), "steady-beat")
	require.Equal(t, "rests-of-mine", c.Name("rests-of-mine"), "an unknown skill is named by its id")
}

func TestFaultyCataloguesAreRefused(t *testing.T) {
	for says, data := range map[string]string{
		"not in it":  `[{"id":"a","name":"A","needs":["b"]}]`,
		"circle":     `[{"id":"a","name":"A","needs":["b"]},{"id":"b","name":"B","needs":["c"]},{"id":"c","name":"C","needs":["a"]}]`,
		"twice":      `[{"id":"a","name":"A"},{"id":"a","name":"B"}]`,
		"no id":      `[{"name":"A"}]`,
		"unexpected": `[`,
	} {
		_, err := Parse([]byte(data))
		require.ErrorContains(t, err, says)
	}
}

// A studio's own form of a skill takes its name, bites, needs and horizon; its family and kind stay as they came.
func TestAStudiosOwnFormOfASkill(t *testing.T) {
	shipped, err := Parse(
		[]byte(
			`[{"id":"a","name":"A","family":"rhythm"},{"id":"b","name":"B","family":"hands","needs":["a"],"steps":["one"],"ahead":30,"gesture":true},{"id":"c","name":"C","needs":["b"]}]`,
		),
	)
	require.NoError(t, err)
	own, err := shipped.Over(
		[]Skill{{ID: "b", Name: "bounce", Family: "other", Steps: []string{"x", "y"}}, {ID: "own.d", Name: "D", Needs: []string{"b"}, Ahead: 9}},
	)
	require.NoError(t, err)
	b, _ := own.Get("b")
	require.Equal(t, Skill{ID: "b", Name: "bounce", Family: "hands", Steps: []string{"x", "y"}, Ahead: 30, Gesture: true}, b)
	own, err = own.Over([]Skill{{ID: "b", Name: "bounce", Needs: []string{"a"}, Ahead: 12}})
	require.NoError(t, err)
	b, _ = own.Get("b")
	require.Equal(t, []any{[]string{"a"}, 12}, []any{b.Needs, b.Ahead})
	b, _ = shipped.Get("b")
	require.Equal(t, []any{"B", 30}, []any{b.Name, b.Ahead}, "the program's own is untouched")

	circle, missing := new(CircleError), new(MissingError)
	_, err = shipped.Over([]Skill{{ID: "a", Name: "A", Needs: []string{"c"}}})
	require.ErrorAs(t, err, &circle)
	require.Equal(t, CircleError{Skill: "a", Through: "b"}, *circle)
	_, err = shipped.Over([]Skill{{ID: "a", Name: "A", Needs: []string{"a"}}})
	require.ErrorAs(t, err, &circle)
	require.Equal(t, CircleError{Skill: "a", Through: "a"}, *circle)
	_, err = shipped.Over([]Skill{{ID: "a", Name: "A", Needs: []string{"z"}}})
	require.ErrorAs(t, err, &missing)
	require.Equal(t, MissingError{Skill: "a", Need: "z"}, *missing)
}

// What a studio writes: one of the catalogue in another form, or a new skill of a family; a blank step is none.
func TestASkillAsAStudioWritesIt(t *testing.T) {
	c, err := Parse([]byte(`[{"id":"a","name":"A","family":"rhythm","ahead":20},{"id":"b","name":"B","family":"hands","needs":["a"]}]`))
	require.NoError(t, err)
	s, err := c.Written("b", Form{Name: " bounce ", Steps: []string{"x", " ", " y"}, Family: "other"})
	require.NoError(t, err)
	require.Equal(t, Skill{ID: "b", Name: "bounce", Family: "hands", Needs: []string{"a"}, Steps: []string{"x", "y"}}, s)
	s, err = c.Written("own.c", Form{Name: "C", Family: " rhythm ", Needs: []string{"b"}, Ahead: 8})
	require.NoError(t, err)
	require.Equal(t, Skill{ID: "own.c", Name: "C", Family: "rhythm", Needs: []string{"b"}, Steps: []string{}, Ahead: 8, Set: "teacher"}, s)
	s, err = c.Written("b", Form{Name: "B", Needs: []string{}})
	require.NoError(t, err)
	require.Empty(t, s.Needs, "it comes after nothing any more")
	s, err = c.Written("a", Form{Name: "A"})
	require.NoError(t, err)
	own, err := c.Over([]Skill{s})
	require.NoError(t, err)
	s, _ = own.Get("a")
	require.Equal(t, 20, s.Ahead, "as it came")
	for want, f := range map[error]Form{ErrNoName: {Name: " ", Family: "x"}, ErrNoFamily: {Name: "D"}} {
		_, err = c.Written("own.d", f)
		require.ErrorIs(t, err, want)
	}
	_, err = c.Written("a", Form{Name: "A", Needs: []string{"b"}})
	require.ErrorAs(t, err, new(*CircleError))
}

func TestEarlySkillsAreThoseThatBeginLongBefore(t *testing.T) {
	c, err := Catalogue{}.With([]Skill{{ID: "a", Name: "a", Ahead: 30}, {ID: "b", Name: "b", Ahead: 8}, {ID: "c", Name: "c"}})
	require.NoError(t, err)
	require.Equal(t, map[string]int{"a": 30}, c.Early(8))
	require.Equal(t, map[string]int{"a": 30, "b": 8}, c.Early(7))
	require.Empty(t, c.Early(30))
}
