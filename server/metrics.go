package server

import (
	"context"
	"log/slog"
	"net"
	"net/http"
	"strconv"
	"time"

	"github.com/google/uuid"
	"github.com/prometheus/client_golang/prometheus"
	"github.com/prometheus/client_golang/prometheus/collectors"
	"github.com/prometheus/client_golang/prometheus/promhttp"

	"manudrill/store"
)

// healthy answers as long as the program runs.
func healthy(w http.ResponseWriter, _ *http.Request) { w.WriteHeader(http.StatusNoContent) }

// ready answers whether requests can be served: the database must answer.
func (s *Server) ready(w http.ResponseWriter, r *http.Request) {
	ctx, cancel := context.WithTimeout(r.Context(), 2*time.Second)
	defer cancel()
	if err := s.store.Ping(ctx); err != nil {
		refuse(w, errDatabase)
		return
	}
	w.WriteHeader(http.StatusNoContent)
}

// metrics count what whoever runs the server wants to know.
type metrics struct {
	registry *prometheus.Registry
	seconds  *prometheus.HistogramVec
}

func newMetrics(s *store.Store) *metrics {
	m := &metrics{
		registry: prometheus.NewRegistry(),
		seconds: prometheus.NewHistogramVec(prometheus.HistogramOpts{
			Name: "manudrill_request_seconds", Help: "Time to answer requests.", Buckets: prometheus.ExponentialBuckets(0.001, 4, 8),
		}, []string{"method", "status"}),
	}
	gauge := func(name, help string, value func() float64) prometheus.Collector {
		return prometheus.NewGaugeFunc(prometheus.GaugeOpts{Name: name, Help: help}, value)
	}
	m.registry.MustRegister(m.seconds, collectors.NewGoCollector(), collectors.NewProcessCollector(collectors.ProcessCollectorOpts{}),
		gauge("manudrill_takes_waiting", "Takes handed in and not measured yet; -1 where the database does not tell.", func() float64 { return waiting(s) }),
		gauge("manudrill_database_connections", "Connections to the database in use.", func() float64 { return float64(s.Pool().Stat().AcquiredConns()) }),
	)
	return m
}

func waiting(s *store.Store) float64 {
	ctx, cancel := context.WithTimeout(context.Background(), 2*time.Second)
	defer cancel()
	n, err := s.TakesWaiting(ctx)
	if err != nil {
		return -1
	}
	return float64(n)
}

// fromHere answers for nobody but programs on the same machine: what it tells is
// for whoever runs the server.
func fromHere(next http.Handler) http.Handler {
	return http.HandlerFunc(func(w http.ResponseWriter, r *http.Request) {
		if ip := net.ParseIP(addressOf(r)); ip == nil || !ip.IsLoopback() {
			refuse(w, errMissing)
			return
		}
		next.ServeHTTP(w, r)
	})
}

func (m *metrics) handler() http.Handler {
	return promhttp.HandlerFor(m.registry, promhttp.HandlerOpts{})
}

// watch times requests, gives each an id by which it is found in the log, and
// writes those that failed by our fault: not what was given up since whoever asked has gone.
func (m *metrics) watch(next http.Handler) http.Handler {
	return http.HandlerFunc(func(w http.ResponseWriter, r *http.Request) {
		id := uuid.NewString()
		w.Header().Set("X-Request-Id", id)
		began := time.Now()
		told := &statusWriter{ResponseWriter: w, status: http.StatusOK}
		next.ServeHTTP(told, r)
		took := time.Since(began)
		m.seconds.WithLabelValues(method(r.Method), strconv.Itoa(told.status)).Observe(took.Seconds())
		if gone := r.Context().Err() != nil; told.status >= http.StatusInternalServerError && !gone {
			slog.Error("request", "id", id, "method", r.Method, "path", r.URL.Path, "status", told.status, "took", took)
		} else {
			slog.Debug("request", "id", id, "method", r.Method, "path", r.URL.Path, "status", told.status, "took", took)
		}
	})
}

// method is a request's method as it is counted: what nobody knows is one kind.
func method(m string) string {
	switch m {
	case http.MethodGet, http.MethodHead, http.MethodPost, http.MethodPut, http.MethodDelete:
		return m
	}
	return "other"
}

// A statusWriter remembers the status of an answer.
type statusWriter struct {
	http.ResponseWriter
	status int
	wrote  bool
}

func (w *statusWriter) WriteHeader(status int) {
	if !w.wrote {
		w.status, w.wrote = status, true
	}
	w.ResponseWriter.WriteHeader(status)
}

// Unwrap is for [http.ResponseController].
func (w *statusWriter) Unwrap() http.ResponseWriter { return w.ResponseWriter }
