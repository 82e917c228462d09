// Package server answers the web interface: it joins the core's computation
// with what the store keeps, as api/openapi.yaml says.
package server

import (
	"io/fs"
	"net/http"
	"net/netip"
	"strings"

	"github.com/gin-gonic/gin"

	"manudrill/api"
	"manudrill/server/jobs"
	"manudrill/server/secret"
	"manudrill/store"
)

// A Server holds what the handlers share.
type Server struct {
	store       *store.Store
	queue       *jobs.Queue
	sessions    sessions
	people      *people
	keeper      *secret.Keeper
	archives    gate // sent at once
	incoming    gate // archives brought in at once, each on the disk as long as it comes
	heavy       gate // what holds a whole sound in memory, one at a time
	limits      limits
	instruments *instruments

	demo         bool
	demoMade     func() (made, all int) // nil where nothing is being made
	url          string                 // of the server as its people know it; empty where that is not told
	sendsLetters bool
}

// Options are what may differ from one place to another.
type Options struct {
	Hosts   []string       // names under which the server is reached, besides localhost and addresses
	URL     string         // under which its people know it, for links in letters
	Proxies []netip.Prefix // who is believed when they say from where a request comes
	Demo    bool           // anybody may be anybody who is invented
	Letters bool           // letters are sent; else they stay in the outbox

	DemoMade func() (made, all int) // how many of the demo's takes are there; nil where none are being made
	Limits   Limits                 // the usual ones where zero
}

// New returns the handler of the whole application: the API under /api, what
// whoever runs it asks for, and the web interface, built into web, everywhere
// else.
func New(s *store.Store, web fs.FS, o Options) (http.Handler, error) {
	queue, err := jobs.NewQueue(s)
	if err != nil {
		return nil, err
	}
	files, err := newFiles(web)
	if err != nil {
		return nil, err
	}
	keeper, err := secret.NewKeeper()
	if err != nil {
		return nil, err
	}
	srv := &Server{
		store: s, queue: queue, sessions: newSessions(s), people: newPeople(s), keeper: keeper,
		heavy: newGate(1), archives: newGate(2), incoming: newGate(2), limits: newLimits(o.Limits), instruments: newInstruments(s),
		demo: o.Demo, demoMade: o.DemoMade, url: strings.TrimSuffix(o.URL, "/"), sendsLetters: o.Letters,
	}
	guard, err := srv.guard()
	if err != nil {
		return nil, err
	}
	gin.SetMode(gin.ReleaseMode)
	engine := gin.New()
	engine.ContextWithFallback = true // handlers find the session in the request's context
	engine.Use(gin.CustomRecovery(func(c *gin.Context, recovered any) { tell(c, panicked{recovered}) }))
	handlers := api.NewStrictHandlerWithOptions(srv, nil, api.StrictGinServerOptions{
		RequestErrorHandlerFunc:  tell,
		HandlerErrorFunc:         tell,
		ResponseErrorHandlerFunc: tell,
	})
	api.RegisterHandlersWithOptions(engine.Group("/api", guard), handlers, api.GinServerOptions{
		ErrorHandler: func(c *gin.Context, err error, status int) {
			tell(c, problem{status, "bad-request", "The request cannot be read", err.Error(), nil})
		},
	})
	engine.NoRoute(func(c *gin.Context) { tell(c, errMissing) })

	mux := http.NewServeMux()
	mux.Handle("/api/", srv.sessions.handler(engine))
	mux.HandleFunc("GET /healthz", healthy)
	mux.HandleFunc("GET /readyz", srv.ready)
	mux.Handle("GET /metrics", fromHere(srv.instruments))
	mux.Handle("/", files)
	return behind(o.Proxies, srv.instruments.watch(protect(o.Hosts, mux))), nil
}
