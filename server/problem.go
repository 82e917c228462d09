package server

import (
	"errors"
	"log/slog"
	"net/http"

	"github.com/gin-gonic/gin"

	"manudrill/api"
	"manudrill/core/drill"
	"manudrill/core/evenness"
	"manudrill/formats/exchange"
	"manudrill/formats/sound"
	"manudrill/store"
)

// A problem is an error that the person in front of the screen is told, as
// problem details (RFC 9457).
type problem struct {
	status int
	kind   string // the last part of the problem's type
	title  string
	detail string
	faults drill.Faults
}

func (p problem) Error() string { return p.title + ": " + p.detail }

func (p problem) body() api.Problem {
	b := api.Problem{Type: "urn:manudrill:problem:" + p.kind, Title: p.title, Status: p.status, Detail: p.detail}
	if len(p.faults) > 0 {
		faults := []drill.Fault(p.faults)
		b.Errors = &faults
	}
	return b
}

// The problems that carry nothing of their own.
var (
	errNobody           = problem{http.StatusUnauthorized, "nobody", "Nobody is here", "Choose who you are first.", nil}
	errNotYours         = problem{http.StatusForbidden, "not-yours", "Not for you", "This belongs to somebody else. Choose another person at the door.", nil}
	errMissing          = problem{http.StatusNotFound, "not-found", "Not found", "There is nothing here any more; go back to the list.", nil}
	errTooLarge         = problem{http.StatusRequestEntityTooLarge, "too-large", "The file is too large", "A take may have 100 MB at the most. Cut the recording to the drill, or save it as FLAC.", nil}
	errNoNotes          = problem{http.StatusUnprocessableEntity, "no-notes", "No notes were heard", "The recording holds no notes. Check that the right microphone is chosen, move it closer to the guitar, and play again.", nil}
	errSameTake         = problem{http.StatusConflict, "take-exists", "This take belongs elsewhere", "The recording has already been handed in for another drill. Record it anew.", nil}
	errOtherNotes       = problem{http.StatusUnprocessableEntity, "other-notes", "These takes cannot be compared", upperFirst(evenness.ErrOtherNotes.Error()) + ".", nil}
	errTooLargeToImport = problem{http.StatusRequestEntityTooLarge, "too-large", "The file is too large", "A file that is made into a drill may have 8 MB at the most. Cut the music to the part to be drilled.", nil}
	errEnded            = problem{http.StatusGone, "assignment-ended", "This drill has been taken back", "Your instructor has taken this drill back, so no new take can be added. The old ones are kept.", nil}
)

// notReadable tells why a file cannot be made into a drill.
func notReadable(err error) error {
	var faults drill.Faults
	if errors.As(err, &faults) {
		return faults
	}
	return problem{http.StatusUnprocessableEntity, "not-a-drill", "This file cannot be made into a drill", upperFirst(err.Error()) + ".", nil}
}

// notARecording tells why a file cannot be taken for a take.
func notARecording(err error) problem {
	return problem{http.StatusUnprocessableEntity, "not-a-recording", "This file cannot be used", upperFirst(err.Error()) + ".", nil}
}

// notOffered tells that a drill cannot be varied like that.
func notOffered(err error) error {
	return problem{http.StatusUnprocessableEntity, "not-offered", "There are no such variations", upperFirst(err.Error()) + ".", nil}
}

// notASetup tells what cannot be in a setup.
func notASetup(err error) error {
	return problem{http.StatusUnprocessableEntity, "not-a-setup", "Guitar and hand cannot be like this", upperFirst(err.Error()) + ".", nil}
}

// problemOf turns any error into the problem that is told.
func problemOf(err error) problem {
	var p problem
	var faults drill.Faults
	var tooLarge *http.MaxBytesError
	switch {
	case errors.As(err, &p):
		return p
	case errors.As(err, &faults):
		return problem{http.StatusUnprocessableEntity, "drill-faults", "The drill cannot be played like this", faults.Error(), faults}
	case errors.As(err, &tooLarge):
		return errTooLarge
	case errors.Is(err, exchange.ErrTooLong):
		return problem{http.StatusUnprocessableEntity, "too-long", "This is too long", upperFirst(err.Error()) + ".", nil}
	case errors.Is(err, store.ErrNotFound):
		return errMissing
	case errors.Is(err, sound.ErrNotSound), errors.Is(err, sound.ErrEmpty), errors.Is(err, sound.ErrCutOff), errors.Is(err, sound.ErrDamaged), errors.Is(err, sound.ErrUnsupported):
		return notARecording(err)
	}
	slog.Error("request failed", "error", err)
	return problem{http.StatusInternalServerError, "fault", "Something went wrong here",
		"The fault is Manudrill's and has been written to its log. Nothing saved is lost; try again.", nil}
}

// tell answers a request with the problem that err is.
func tell(c *gin.Context, err error) {
	p := problemOf(err)
	c.Header("Content-Type", "application/problem+json")
	c.AbortWithStatusJSON(p.status, p.body())
}
