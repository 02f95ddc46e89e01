package admit

import (
	"context"
	"errors"
	"testing"
	"time"

	"github.com/stretchr/testify/require"

	"patientladder/api/problem"
)

// Two at once, one waits, the fourth is turned away at once; who waits in vain is told when to come again.
func TestABudget(t *testing.T) {
	b := New(2, 1, 60*time.Millisecond)
	ctx := context.Background()
	one, err := b.Enter(ctx)
	require.NoError(t, err)
	_, err = b.Enter(ctx)
	require.NoError(t, err)
	waited := make(chan error)
	go func() { _, err := b.Enter(ctx); waited <- err }()
	require.Eventually(t, func() bool { return b.State().Waiting == 1 }, time.Second, time.Millisecond)
	_, err = b.Enter(ctx)
	var p *problem.Problem
	require.ErrorAs(t, err, &p)
	require.Equal(
		t,
		[]any{503, "1", "The server is busy; nothing was changed. Try again in a second."},
		[]any{p.Status, p.RetryAfter, p.Detail},
	)
	require.ErrorAs(t, <-waited, &p, "patience ends")
	require.Equal(t, State{Working: 2, Room: 2, Refused: 2}, b.State())
	one()
	leave, err := b.Enter(ctx)
	require.NoError(t, err)
	gone, cancel := context.WithCancel(ctx)
	cancel()
	_, err = b.Enter(gone)
	require.True(t, errors.Is(err, context.Canceled))
	go func() { _, err := New(1, 1, time.Hour).Enter(ctx); waited <- err }()
	require.NoError(t, <-waited)
	leave()
	require.Equal(t, 1, b.State().Working)
}
