package tongue_test

import (
	"strings"
	"testing"

	"github.com/stretchr/testify/require"

	"patientladder/core/library/instrument"
	"patientladder/core/library/skill"
	"patientladder/core/planning/lessonplan"
	"patientladder/core/student/setup"
	"patientladder/core/technique/exercise"
	"patientladder/core/wording/tongue"
)

// Every game, goal, skill and usual fault that ships is there in each language.
func TestWhatShipsIsSaidInEachLanguage(t *testing.T) {
	var texts []string
	for _, g := range lessonplan.Shipped() {
		texts = append(texts, g.Name, g.Home)
		if g.Cue != "" {
			texts = append(texts, g.Cue)
		}
	}
	skills, err := skill.Standard()
	require.NoError(t, err)
	for _, s := range skills.All() {
		texts = append(append(texts, s.Name), s.Steps...)
	}
	for _, player := range instrument.All() {
		for _, x := range exercise.For(player) {
			for _, s := range x.Steps {
				texts = append(texts, s.Goals...)
			}
		}
		for _, f := range setup.Faults(player) {
			texts = append(texts, f.Name, f.Home)
		}
	}
	require.Greater(t, len(texts), 450)
	for _, l := range tongue.All()[1:] {
		for _, text := range texts {
			if text != "la" {
				require.NotEqual(t, text, l.Shipped(text), l.ID)
			}
		}
	}
}

func TestWhatAStudioWroteStaysAsItIs(t *testing.T) {
	de, en := tongue.Of("de"), tongue.Of("en")
	require.Equal(t, "Legato like honey", de.Shipped("Legato like honey"))
	require.Equal(t, "round fingers, every tip firm", en.Shipped("round fingers, every tip firm"))
	require.Equal(t, []string{"runde Finger, jede Kuppe fest", "Runde Finger, jede Kuppe fest"}, []string{
		de.Shipped("round fingers, every tip firm"), de.Shipped("Round fingers, every tip firm"),
	})
	words := "Say “right” or “left”; Nell claps the table with that hand. Six times, then Nell is the one who says it."
	require.Equal(t, "„Rechts“ oder „links“ sagen; Nell klopft mit dieser Hand auf den Tisch. Sechsmal, dann sagt Nell es an.", de.ShippedOf(words, "Nell"))
	require.Equal(t, words, en.ShippedOf(words, "Nell"))
	require.Equal(t, []string{"Viertel", "Viertel"}, []string{de.Shipped("crotchets"), de.Shipped("quarter notes")})
	require.Equal(t, "auf ein Wort (C major)", strings.Replace(de.ShippedOf("clap and change hands on a cue word (C major)", "Nell"), "klatschen und auf ein Stichwort die Hand wechseln", "auf ein Wort", 1))
	require.Equal(t, []string{"de", "de", "en", "", ""}, []string{
		tongue.Match("de"), tongue.Match("de-AT"), tongue.Match("EN-us"), tongue.Match("fr"), tongue.Match(""),
	})
}
