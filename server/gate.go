package server

import (
	"context"
	"net/http"
)

// A gate lets so many in at once; the others wait for their turn.
type gate chan struct{}

func newGate(n int) gate { return make(gate, n) }

// errBusy is told to whoever has waited for too long.
var errBusy = problem{http.StatusServiceUnavailable, "busy", "Too much is asked at once", "The server is busy with what others ask for. Nothing is lost; try again in a moment.", nil}

// enter waits for a turn as long as ctx lasts. Whoever has entered must leave.
func (g gate) enter(ctx context.Context) error {
	select {
	case g <- struct{}{}:
		return nil
	case <-ctx.Done():
		return errBusy
	}
}

func (g gate) leave() { <-g }
