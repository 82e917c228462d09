package server

import (
	"context"
	"errors"
	"fmt"
	"net/http"
	"strings"

	"github.com/getkin/kin-openapi/openapi3"
	"github.com/getkin/kin-openapi/openapi3filter"
	"github.com/getkin/kin-openapi/routers/legacy"
	"github.com/gin-gonic/gin"
)

// maxBody is the size of the largest recording taken in, in bytes.
const maxBody = 100 << 20

// requestCheck returns a handler that lets only requests through that keep to
// the contract.
func requestCheck(spec []byte) (gin.HandlerFunc, error) {
	doc, err := openapi3.NewLoader().LoadFromData(spec)
	if err != nil {
		return nil, fmt.Errorf("the API description cannot be read: %w", err)
	}
	router, err := legacy.NewRouter(doc)
	if err != nil {
		return nil, fmt.Errorf("the API description cannot be used: %w", err)
	}
	return func(c *gin.Context) {
		if c.Request.ContentLength > maxBody {
			tell(c, errTooLarge)
			return
		}
		c.Request.Body = http.MaxBytesReader(c.Writer, c.Request.Body, maxBody)
		route, params, err := router.FindRoute(c.Request)
		if err != nil {
			tell(c, errMissing)
			return
		}
		err = openapi3filter.ValidateRequest(context.WithoutCancel(c.Request.Context()), &openapi3filter.RequestValidationInput{
			Request: c.Request, PathParams: params, Route: route,
			Options: &openapi3filter.Options{
				// A recording has no schema to check and is large.
				ExcludeRequestBody: c.ContentType() == "application/octet-stream",
			},
		})
		if err != nil {
			tell(c, badRequest(err))
		}
	}, nil
}

// badRequest tells in short where a request leaves the contract.
func badRequest(err error) error {
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
