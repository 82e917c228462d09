package server

import (
	"context"
	"errors"
	"fmt"
	"io"
	"net"
	"net/http"
	"strings"
	"sync"
	"time"

	"github.com/getkin/kin-openapi/openapi3"
	"github.com/getkin/kin-openapi/openapi3filter"
	"github.com/getkin/kin-openapi/routers"
	"github.com/getkin/kin-openapi/routers/legacy"
	"github.com/gin-gonic/gin"

	"manudrill/api"
	"manudrill/core/bounds"
	"manudrill/formats/archive"
)

// bodies are the largest bodies of the operations that take files, in bytes; all
// others take JSON.
var bodies = map[string]int64{"addTake": bounds.RecordingBytes, "putVideo": bounds.VideoBytes, "import": bounds.DocumentBytes, "bringIn": archive.MaxBytes, "readPeople": bounds.DocumentBytes, "readPaper": bounds.DocumentBytes, "putPaper": bounds.DocumentBytes}

// Times after which a request is given up.
const (
	answerTime = 30 * time.Second // for its handler, and for a JSON body to come in
	uploadTime = 15 * time.Minute // for a file to come in or go out
	stallTime  = 30 * time.Second // in which of a file nothing comes
)

// largeBody is from how many bytes on few JSON bodies are read at once: checked,
// one takes some thirty times its size.
const largeBody = 64 << 10

// contract finds the operation of a request. Reading it takes half a second, so that it
// is read once.
var contract = sync.OnceValues(func() (routers.Router, error) {
	doc, err := openapi3.NewLoader().LoadFromData(api.Spec)
	if err != nil {
		return nil, fmt.Errorf("the API description cannot be read: %w", err)
	}
	router, err := legacy.NewRouter(doc)
	if err != nil {
		return nil, fmt.Errorf("the API description cannot be used: %w", err)
	}
	return router, nil
})

// guard returns a handler that lets only requests through that keep to the
// contract. Who one is, is looked at before anything is read of the body.
func (s *Server) guard() (gin.HandlerFunc, error) {
	router, err := contract()
	if err != nil {
		return nil, err
	}
	large := newGate(4)
	return func(c *gin.Context) {
		route, params, err := router.FindRoute(c.Request)
		if err != nil {
			tell(c, errMissing)
			return
		}
		if err := s.admit(c, route.Operation); err != nil {
			tell(c, err)
			return
		}
		most, isFile := bodies[route.Operation.OperationID]
		if !isFile {
			most = bounds.JSONBytes
		}
		defer letFinish(c, c.Request.Body)
		if c.Request.ContentLength > most {
			tell(c, tooLarge(most))
			return
		}
		c.Request.Body = http.MaxBytesReader(c.Writer, c.Request.Body, most)
		_ = http.NewResponseController(c.Writer).SetWriteDeadline(time.Now().Add(uploadTime)) // also for whoever does not read on
		if !isFile {
			end := limitTime(c)
			defer end()
			if c.Request.ContentLength < 0 || c.Request.ContentLength > largeBody {
				if err := large.enter(c.Request.Context()); err != nil {
					tell(c, err)
					return
				}
				defer large.leave()
			}
		}
		err = openapi3filter.ValidateRequest(context.WithoutCancel(c.Request.Context()), &openapi3filter.RequestValidationInput{
			Request: c.Request, PathParams: params, Route: route,
			// A file has no schema to check and is large.
			Options: &openapi3filter.Options{ExcludeRequestBody: isFile},
		})
		if err != nil {
			tell(c, badRequest(err))
			return
		}
		if !isFile {
			waitNoMore(http.NewResponseController(c.Writer))
		}
		c.Next()
	}, nil
}

// drained and drainTime are how much is read on, and for how long, of a body that
// was refused.
const (
	drained   = 64 << 20
	drainTime = 5 * time.Second
)

// letFinish reads on, and throws away, what is still sent of a body that was too
// large: most clients hear the answer only once they have sent all.
func letFinish(c *gin.Context, body io.Reader) {
	if c.Writer.Status() != http.StatusRequestEntityTooLarge {
		return
	}
	c.Writer.Flush()
	_ = http.NewResponseController(c.Writer).SetReadDeadline(time.Now().Add(drainTime))
	_, _ = io.CopyN(io.Discard, body, drained) // nothing depends on it
}

// limitTime gives a request without a file the time it may take.
func limitTime(c *gin.Context) (end func()) {
	until := time.Now().Add(answerTime)
	control := http.NewResponseController(c.Writer)
	_ = control.SetReadDeadline(until) // a writer that cannot, as in tests, has no connection to wait for
	ctx, cancel := context.WithDeadline(c.Request.Context(), until)
	c.Request = c.Request.WithContext(ctx)
	return cancel
}

// waitNoMore ends the time a body had, once it is read. A time that runs out while the answer
// is made would be taken for a broken connection: net/http then gives up this request and
// each that comes later on it.
func waitNoMore(control *http.ResponseController) {
	_ = control.SetReadDeadline(time.Time{}) // a writer that cannot has no connection to wait for
}

// badRequest tells in short where a request leaves the contract.
func badRequest(err error) error {
	var large *http.MaxBytesError
	if errors.As(err, &large) {
		return err
	}
	var late net.Error
	if errors.As(err, &late) && late.Timeout() {
		return errLate
	}
	where, why := "the request", err.Error()
	var request *openapi3filter.RequestError
	if errors.As(err, &request) {
		why = request.Reason
		if request.Parameter != nil {
			where = request.Parameter.Name
		}
	}
	var schema *openapi3.SchemaError
	if errors.As(err, &schema) {
		why = schema.Reason
		if path := schema.JSONPointer(); len(path) > 0 {
			where = strings.Join(path, ".")
		}
	}
	return problem{http.StatusBadRequest, "bad-request", "The request cannot be read", where + ": " + why, nil}
}

// panicked is a fault that a handler did not expect.
type panicked struct{ value any }

func (p panicked) Error() string { return fmt.Sprintf("panic: %v", p.value) }
