package server

import (
	"encoding/json"
	"errors"
	"fmt"
	"log/slog"
	"net/http"

	"github.com/gin-gonic/gin"

	"manudrill/api"
	"manudrill/core/bounds"
	"manudrill/core/drill"
	"manudrill/core/evenness"
	"manudrill/formats/hearing"
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
	errNobody      = problem{http.StatusUnauthorized, "nobody", "You are not signed in", "Sign in at the door; nothing you made is lost.", nil}
	errNotYours    = problem{http.StatusForbidden, "not-yours", "Not for you", "This is not for you to do or to see. Ask an instructor of the studio.", nil}
	errOwnerOnly   = problem{http.StatusForbidden, "owner-only", "The owner does this", "Instructors look after students; the owner of the studio looks after instructors. Ask them.", nil}
	errNotKnown    = problem{http.StatusUnauthorized, "not-known", "The name or the password is not right", "Type both again. If it stays so, ask for another password, or your instructor for a new code.", nil}
	errNoCode      = problem{http.StatusUnauthorized, "no-code", "There is no such code", "Look at the card again: a code has twelve letters and digits. It may have been renewed, or a password chosen in its place; ask your instructor for a new one.", nil}
	errUsed        = problem{http.StatusGone, "used", "This link leads nowhere any more", "It was used already, or is too old. Ask for a new one.", nil}
	errOldPassword = problem{http.StatusForbidden, "old-password", "The password you have is another one", "Type the one you sign in with now.", nil}
	errNameTaken   = problem{http.StatusConflict, "name-taken", "Somebody signs in with this name", "Choose another; your last initial or a number makes it yours.", nil}
	errDemoAccount = problem{http.StatusForbidden, "demo", "This is a demo", "In the demo anybody may be anybody, and nobody has a password.", nil}
	errOwner       = problem{http.StatusConflict, "owner", "The owner stays", "A studio is not left without its owner.", nil}
	errDropped     = problem{http.StatusGone, "sound-dropped", "The sound is no longer kept", "This studio keeps recordings for a time. What was measured in it stays.", nil}
	errOwnCode     = problem{http.StatusConflict, "own-code", "This is you", "A new code would sign you out. Change your password in your settings instead.", nil}

	errTooManyPairs   = problem{http.StatusUnprocessableEntity, "too-many", "These are too many at once", "Two thousand drills times students is the most at once; assign in parts.", nil}
	errArchiveInstead = problem{http.StatusConflict, "archive-instead", "Instructors are archived", "What instructors made stays with the studio, under their name. Archive them: then they cannot come in any more.", nil}

	errMissing     = problem{http.StatusNotFound, "not-found", "Not found", "There is nothing here any more; go back to the list.", nil}
	errSameTake    = problem{http.StatusConflict, "take-exists", "This take belongs elsewhere", "The recording has already been handed in for another drill. Record it anew.", nil}
	errOtherNotes  = problem{http.StatusUnprocessableEntity, "other-notes", "These takes cannot be compared", upperFirst(evenness.ErrOtherNotes.Error()) + ".", nil}
	errNotAsked    = problem{http.StatusConflict, "video-not-asked", "No video is asked for", "Your instructor does not ask for your hands on video with this drill, so none is kept. The take is.", nil}
	errNoVideo     = problem{http.StatusUnprocessableEntity, "no-video", "This is no video", "Hand in WebM or MP4, as a browser records them. The take itself is there.", nil}
	errHurts       = problem{http.StatusConflict, "hurts", "You have reported pain", "No ladder climbs until your instructor says so, so this rung is not set.", nil}
	errEnded       = problem{http.StatusGone, "assignment-ended", "This drill has been withdrawn", "Your instructor has withdrawn this drill, so no take played since can be added. The old ones are kept.", nil}
	errNotTold     = problem{http.StatusConflict, "not-told", "The take does not tell of this", "It was measured again meanwhile, or somebody has said so already. Load the take again.", nil}
	errNotMeasured = problem{http.StatusConflict, "not-measured", "This take is not measured", "It waits to be measured, or could not be; look at it again in a moment.", nil}
	errBrokenOff   = problem{http.StatusBadRequest, "broken-off", "The recording did not come through", "The line broke off or stood still. Nothing is lost where it was recorded; hand it in again.", nil}
	errLate        = problem{http.StatusRequestTimeout, "late", "The request did not come through", "The line is slow or stood still. Nothing was changed; try again.", nil}
	errIsHere      = problem{http.StatusConflict, "is-here", "This student is here already", "Remove them for good first to bring them in as they were, or keep who is here.", nil}
	errNotEmpty    = problem{http.StatusConflict, "not-empty", "There are students here already", "A whole studio comes into one without students alone: begin a new one by 'manudrill studio', and bring it in there.", nil}
	errTakenHere   = problem{http.StatusConflict, "taken-here", "Part of it is kept here as something else", "Another studio of this house has it, or a drill has been changed since. Nothing was brought in; use an empty house.", nil}
	errOwnersAlone = problem{http.StatusForbidden, "owner-alone", "This is an archive of a whole studio", "The owner brings it in, into a studio without students.", nil}
	errNewer       = problem{http.StatusConflict, "newer", "The archive is newer than this Manudrill", "Update Manudrill, then bring it in.", nil}
	errOdd         = problem{http.StatusConflict, "odd-document", "This drill cannot be read", "It was saved by another version of Manudrill, which this one cannot read. It is kept as it is; update Manudrill.", nil}
	errChanged     = problem{http.StatusPreconditionFailed, "changed", "This was changed meanwhile", "Somebody, or you in another window, has changed it since you opened it. Look at what is there now and choose.", nil}
	errTimeZone    = problem{http.StatusUnprocessableEntity, "no-time-zone", "There is no such time zone", "Name it by a continent and a city, as Europe/Vienna or America/Lima, or take UTC.", nil}
	errTooMany     = problem{http.StatusConflict, "too-many", "There are too many of these", "No more can be added here. Remove some that are no longer needed.", nil}
	errTooOften    = problem{http.StatusTooManyRequests, "too-often", "Too many tries", "Wait a minute, then try again.", nil}
	errClock       = problem{http.StatusBadRequest, "clock", "The time of the recording cannot be", "The clock of the device is far off. Set it, or hand in without a time.", nil}
	errOtherOrigin = problem{http.StatusForbidden, "other-origin", "Not from here", "Another site has asked for this. Open Manudrill itself and do it there.", nil}
	errOtherHost   = problem{http.StatusMisdirectedRequest, "other-host", "Not under this name", "Manudrill is not known under the name in the address. Use the address it printed, or start it with --host for this name.", nil}
	errFault       = problem{http.StatusInternalServerError, "fault", "Something went wrong here", "The fault is Manudrill's and has been written to its log. Nothing saved is lost; try again.", nil}
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

// notAList tells why a table cannot be read.
func notAList(err error) error {
	return problem{http.StatusUnprocessableEntity, "not-a-list", "This list cannot be used", upperFirst(err.Error()) + ".", nil}
}

// notASetup tells what cannot be in a setup.
func notASetup(err error) error {
	return problem{http.StatusUnprocessableEntity, "not-a-setup", "Guitar and hand cannot be like this", upperFirst(err.Error()) + ".", nil}
}

// notAPlace tells that a list has no such page.
func notAPlace(err error) error {
	return problem{http.StatusBadRequest, "bad-request", "There is no such page", upperFirst(err.Error()) + ".", nil}
}

// tooLarge tells how much may be sent at once.
func tooLarge(most int64) problem {
	what := "What was sent is too large; send less at once."
	switch most {
	case bounds.RecordingBytes:
		what = "Cut the recording to the drill, or save it as FLAC."
	case bounds.DocumentBytes:
		what = "Cut the music to the part to be drilled."
	}
	return problem{http.StatusRequestEntityTooLarge, "too-large", "The file is too large", fmt.Sprintf("%d MB is the most here. %s", most>>20, what), nil}
}

// problemOf turns any error into the problem that is told.
func problemOf(err error) problem {
	var p problem
	var faults drill.Faults
	var large *http.MaxBytesError
	var same store.ErrSameSound
	switch {
	case errors.As(err, &p):
		return p
	case errors.As(err, &faults):
		return problem{http.StatusUnprocessableEntity, "drill-faults", "The drill cannot be played like this", faults.Error(), faults}
	case errors.As(err, &large):
		return tooLarge(large.Limit)
	case errors.As(err, &same):
		return problem{http.StatusConflict, "same-recording", "This recording is handed in already",
			fmt.Sprintf("It is the take of %s. Record anew, or choose another file.", same.RecordedAt.UTC().Format("2 January 2006, 15:04 UTC")), nil}
	case errors.Is(err, store.ErrNotFound):
		return errMissing
	case errors.Is(err, store.ErrChanged):
		return errChanged
	case errors.Is(err, evenness.ErrNotTold):
		return errNotTold
	case errors.Is(err, store.ErrTooMany):
		return errTooMany
	case errors.Is(err, store.ErrUsed):
		return errUsed
	case errors.Is(err, store.ErrNameTaken):
		return errNameTaken
	case errors.Is(err, store.ErrTimeZone):
		return errTimeZone
	case errors.Is(err, store.ErrDropped):
		return errDropped
	case errors.Is(err, store.ErrOwner):
		return errOwner
	case errors.As(err, new(tooOften)):
		return errTooOften
	}
	if p, is := broughtInProblem(err); is {
		return p
	}
	if hearing.IsFault(err) || errors.Is(err, bounds.ErrRenditionTooLong) {
		return notARecording(err)
	}
	if p, is := databaseProblem(err); is {
		return p
	}
	slog.Error("request failed", "error", err)
	return errFault
}

// tell answers a request with the problem that err is.
func tell(c *gin.Context, err error) {
	c.Abort()
	refuse(c.Writer, err)
}

// refuse answers with the problem that err is.
func refuse(w http.ResponseWriter, err error) {
	var often tooOften
	if errors.As(err, &often) {
		w.Header().Set("Retry-After", often.seconds())
	}
	p := problemOf(err)
	body, err := json.Marshal(p.body())
	if err != nil {
		slog.Error("a problem cannot be told", "error", err)
	}
	w.Header().Set("Content-Type", "application/problem+json")
	w.Header().Set("Cache-Control", "no-store")
	w.WriteHeader(p.status)
	_, _ = w.Write(body) // whoever asked may have gone
}
