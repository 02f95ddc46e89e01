package outside_test

import (
	"bytes"
	"encoding/json"
	"math/rand/v2"
	"os/exec"
	"testing"

	"github.com/stretchr/testify/require"

	"patientladder/core/student/memory"
)

// A thousand histories of hearings: states and recall agree with the reference
// implementation of FSRS-6. Source: ts-fsrs (npm).
func TestMemoriesAgreeWithTheReference(t *testing.T) {
	type hearing struct {
		Days   int `json:"days"`
		Rating int `json:"rating"`
	}
	type state struct{ Stability, Difficulty, Recall float64 }
	random := rand.New(rand.NewPCG(11, 6))
	histories := make([][]hearing, 1000)
	for i := range histories {
		for k := range 2 + random.IntN(20) {
			h := hearing{Rating: 1 + random.IntN(4)}
			if k > 0 && random.IntN(5) > 0 {
				h.Days = random.IntN(1 + random.IntN(200))
			}
			histories[i] = append(histories[i], h)
		}
	}
	in, err := json.Marshal(histories)
	require.NoError(t, err)
	cmd := exec.Command("node", "fsrs.mjs")
	cmd.Stdin = bytes.NewReader(in)
	out, err := cmd.Output()
	require.NoError(t, err)
	var want [][]state
	require.NoError(t, json.Unmarshal(out, &want))
	p := memory.DefaultParams()
	compared := 0
	for i, history := range histories {
		var s memory.State
		for k, h := range history {
			require.InDelta(t, want[i][k].Recall, p.Recall(s, float64(h.Days)), 1e-6, "history %d, hearing %d", i, k)
			s = p.Next(s, h.Days, memory.Rating(h.Rating))
			// The reference rounds to eight decimals at every step; long chains keep within a millionth of the value.
			require.InDelta(t, 1, s.Stability/want[i][k].Stability, 1e-6, "history %d, hearing %d: stability", i, k)
			require.InDelta(t, want[i][k].Difficulty, s.Difficulty, 1e-6, "history %d, hearing %d: difficulty", i, k)
			compared++
		}
	}
	t.Logf("%d hearings agree with ts-fsrs", compared)
}
