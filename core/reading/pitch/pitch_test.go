package pitch

import (
	"testing"

	"github.com/stretchr/testify/require"

	"patientladder/core/base/finding"
	"patientladder/core/notation/abc"
	"patientladder/core/reading/key"
	"patientladder/core/reading/reading"
)

func find(t *testing.T, tune string) finding.Set {
	t.Helper()
	tunes, err := abc.Read([]byte("X:1\nL:1/4\n" + tune))
	require.NoError(t, err)
	s := tunes[0]
	lines := reading.Lines(s, true)
	moves := make([][]reading.Move, len(lines))
	for i, l := range lines {
		moves[i] = reading.Moves(s, l)
	}
	plays := make([]bool, len(s.Parts))
	for i := range plays {
		plays[i] = true
	}
	return Find(s, lines, moves, plays, key.Of(s))
}

// Where the ledger lines begin (any primer of notation): middle C has one
// below the treble and one above the bass staff, A one above the treble staff,
// E one below the bass staff; the notes next to the staff have none.
func TestLedgerLines(t *testing.T) {
	for tune, want := range map[string][3]bool{ // above, below, beyond the second
		"K:C clef=treble\nD|":   {false, false, false},
		"K:C clef=treble\nC|":   {false, true, false},
		"K:C clef=treble\nB,|":  {false, true, false},
		"K:C clef=treble\nF,|":  {false, true, true},
		"K:C clef=treble\ng|":   {false, false, false},
		"K:C clef=treble\na|":   {true, false, false},
		"K:C clef=treble\nd'|":  {true, false, true},
		"K:C clef=bass\nB,|":    {false, false, false},
		"K:C clef=bass\nC|":     {true, false, false},
		"K:C clef=bass\nF,,|":   {false, false, false},
		"K:C clef=bass\nE,,|":   {false, true, false},
		"K:C clef=alto\nC|":     {false, false, false},
		"K:C clef=alto\nB|":     {true, false, false},
		"K:C clef=tenor\nE|":    {false, false, false},
		"K:C clef=tenor\nG|":    {true, false, false},
		"K:C clef=treble-8\nc|": {false, false, false},
		"K:C clef=treble-8\nC|": {false, true, false},
	} {
		f := find(t, tune)
		require.Equal(t, want, [3]bool{len(f["ledger.above"]) > 0, len(f["ledger.below"]) > 0, len(f["ledger.many"]) > 0}, tune)
	}
}

func TestClefsByName(t *testing.T) {
	for clef, want := range map[string]string{"treble": "staff.treble", "bass": "staff.bass", "alto": "staff.alto", "tenor": "staff.tenor"} {
		require.Contains(t, find(t, "K:C clef="+clef+"\nC|"), want)
	}
	require.Equal(t, []int{2}, find(t, "K:C\nC4|[K:C clef=bass]C,4|")["clef.change"])
}

// Signs outside the key, worked by hand.
func TestAccidentals(t *testing.T) {
	require.Empty(t, find(t, "K:D\nDEFG ABcd|")["accidental"])
	require.Equal(t, []int{1}, find(t, "K:D\nD=F|E4|")["accidental"], "a natural is outside D major")
	require.Equal(t, []int{2}, find(t, "K:Am\nABcd|^G4|")["accidental"], "the leading note of A minor")
	require.Equal(t, []int{1}, find(t, "K:C\n^^F4|")["accidental.double"])
	require.Equal(t, []int{1}, find(t, "K:D\nF4|E4|")["black-key"])
}

func TestFigures(t *testing.T) {
	for tune, want := range map[string]map[string]bool{
		"K:C\nCDEFGA|":       {"scale-run": true, "broken-chord": false, "range.beyond-five.right": true, "range.beyond-octave": false},
		"K:C\nCDEFG|":        {"scale-run": false, "range.beyond-five.right": false},
		"K:C\nCDEzFGA|":      {"scale-run": false},
		"K:C\nC^CD^D|":       {"chromatic-run": true},
		"K:C\nCEG|":          {"broken-chord": true, "arpeggio": false},
		"K:C\nCEGc|":         {"broken-chord": true, "arpeggio": true},
		"K:C\ncGEC|":         {"broken-chord": true, "arpeggio": true},
		"K:C\nCEDF|":         {"broken-chord": false},
		"K:C\nCGEG|":         {"alberti": true},
		"K:C\nCEGE|":         {"alberti": false},
		"K:C\nCEDE|":         {"alberti": false}, // a run about a note
		"K:C\nCG2EG|":        {"alberti": false},
		"K:C\n[CE][EG][Gc]|": {"broken-chord": false, "chord.2": true},
		"K:C\n[CEG]|":        {"chord.3": true, "chord.number-5": true},
		"K:C\n[Cc]|":         {"chord.octave": true, "chord.number-8": true},
		"K:C\nCc|":           {"move.wide": true, "move.number-8": true, "range.beyond-five.right": true},
	} {
		f := find(t, tune)
		for name, there := range want {
			require.Equal(t, there, len(f[name]) > 0, "%s in %s", name, tune)
		}
	}
}

// Keys by their signatures, three and more as one.
func TestKeys(t *testing.T) {
	for key, want := range map[string]string{"G": "key.sharps-1", "D": "key.sharps-2", "E": "key.sharps-3", "F": "key.flats-1", "Bb": "key.flats-2", "Ab": "key.flats-3"} {
		require.Contains(t, find(t, "K:"+key+"\nC|"), want)
	}
	require.Contains(t, find(t, "K:Em\nE|"), "key.minor")
	require.Equal(t, []int{2}, find(t, "K:C\nC|[K:G]G|")["key.change"])
}
