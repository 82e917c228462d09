package server

import (
	"context"
	"fmt"
	"log/slog"
	"net"
	"net/http"
	"strconv"
	"time"

	"github.com/VictoriaMetrics/metrics"
	"github.com/google/uuid"

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

// instruments count what whoever runs the server wants to know, in the text
// format of Prometheus.
type instruments struct{ set *metrics.Set }

// secondsBounds are those of the histogram of requests: 1 ms to 16 s.
var secondsBounds = metrics.ExponentialBuckets(0.001, 4, 8)

func newInstruments(s *store.Store) *instruments {
	set := metrics.NewSet()
	set.NewGauge("manudrill_takes_waiting", func() float64 { return waiting(s) })
	set.NewGauge("manudrill_database_connections", func() float64 { return float64(s.Pool().Stat().AcquiredConns()) })
	return &instruments{set: set}
}

// answered counts a request by its method and status.
func (m *instruments) answered(method string, status int, took time.Duration) {
	name := fmt.Sprintf("manudrill_request_seconds{method=%q,status=%q}", method, strconv.Itoa(status))
	m.set.GetOrCreatePrometheusHistogramExt(name, secondsBounds).Update(took.Seconds())
}

// waiting is how many takes are handed in and not measured yet; -1 where the database does
// not tell.
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

func (m *instruments) ServeHTTP(w http.ResponseWriter, _ *http.Request) {
	w.Header().Set("Content-Type", "text/plain; version=0.0.4; charset=utf-8")
	m.set.WritePrometheus(w)
	metrics.WriteProcessMetrics(w)
}

// watch times requests, gives each an id by which it is found in the log, and
// writes those that failed by our fault: not what was given up since whoever asked has gone.
func (m *instruments) watch(next http.Handler) http.Handler {
	return http.HandlerFunc(func(w http.ResponseWriter, r *http.Request) {
		id := uuid.NewString()
		w.Header().Set("X-Request-Id", id)
		began := time.Now()
		told := &statusWriter{ResponseWriter: w, status: http.StatusOK}
		next.ServeHTTP(told, r)
		took := time.Since(began)
		m.answered(method(r.Method), told.status, took)
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
