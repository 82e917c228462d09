// Package server answers the web interface: it joins the core's computation
// with what the store keeps, as api/openapi.yaml says.
package server

import (
	"io/fs"
	"net/http"

	"github.com/alexedwards/scs/v2"
	"github.com/gin-gonic/gin"

	"manudrill/api"
	"manudrill/store"
)

// A Server holds what the handlers share.
type Server struct {
	store    *store.Store
	intake   Intake
	sessions *scs.SessionManager
}

// New returns the handler of the whole application: the API under /api and the
// web interface, built into web, everywhere else.
func New(s *store.Store, web fs.FS) (http.Handler, error) {
	srv := &Server{store: s, intake: Intake{s}, sessions: newSessions(s.Pool())}
	check, err := requestCheck(api.Spec)
	if err != nil {
		return nil, err
	}
	gin.SetMode(gin.ReleaseMode)
	engine := gin.New()
	engine.ContextWithFallback = true // handlers find the session in the request's context
	engine.Use(gin.CustomRecovery(func(c *gin.Context, recovered any) { tell(c, panicked{recovered}) }))
	engine.NoRoute(serveWeb(web))

	routes := engine.Group("/api", check)
	handlers := api.NewStrictHandlerWithOptions(srv, []api.StrictMiddlewareFunc{srv.admit}, api.StrictGinServerOptions{
		RequestErrorHandlerFunc:  tell,
		HandlerErrorFunc:         tell,
		ResponseErrorHandlerFunc: tell,
	})
	api.RegisterHandlersWithOptions(routes, handlers, api.GinServerOptions{
		ErrorHandler: func(c *gin.Context, err error, status int) {
			tell(c, problem{status, "bad-request", "The request cannot be read", err.Error(), nil})
		},
	})
	return srv.sessions.LoadAndSave(engine), nil
}
