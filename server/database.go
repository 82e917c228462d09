package server

import (
	"context"
	"errors"
	"log/slog"
	"net"
	"net/http"
	"strings"
	"syscall"

	"github.com/jackc/pgx/v5/pgconn"
)

// The problems of the ground that the server stands on.
var (
	errDatabase = problem{http.StatusServiceUnavailable, "database", "The database does not answer", "Nothing saved is lost. Wait a moment and try again; if it stays, whoever runs Manudrill finds the reason in its log.", nil}
	errSlow     = problem{http.StatusServiceUnavailable, "slow", "This took too long", "Much is going on just now and it was given up; nothing was changed. Try again in a moment.", nil}
	errDiskFull = problem{http.StatusInsufficientStorage, "disk-full", "The disk is full", "There is no room left to keep this. Nothing saved is lost; keep what you have and try again once whoever runs Manudrill has made room.", nil}
	errNoText   = problem{http.StatusBadRequest, "bad-request", "The request cannot be read", "A text holds characters that no text has. Type it anew.", nil}
)

// databaseProblem tells the faults of the database and the disk, and whether err
// is one.
func databaseProblem(err error) (problem, bool) {
	p, is := groundProblem(err)
	if is && p.status >= http.StatusInternalServerError && !errors.Is(err, context.Canceled) { // who asked has not gone
		slog.Error("the database or the disk failed a request", "error", err)
	}
	return p, is
}

// groundProblem tells them by what PostgreSQL calls them (its manual, appendix A).
func groundProblem(err error) (problem, bool) {
	var fault *pgconn.PgError
	if errors.As(err, &fault) {
		switch class := fault.Code[:2]; {
		case fault.Code == "53100": // disk full
			return errDiskFull, true
		case fault.Code == "57014", fault.Code == "55P03", class == "40": // cancelled, lock not available, rolled back
			return errSlow, true
		case fault.Code == "22P05", fault.Code == "22021": // untranslatable character
			return errNoText, true
		case class == "08", class == "53", class == "57", class == "58", strings.HasPrefix(fault.Code, "XX"):
			return errDatabase, true
		}
		return problem{}, false
	}
	var connect *pgconn.ConnectError
	var network net.Error
	switch {
	case errors.Is(err, syscall.ENOSPC):
		return errDiskFull, true
	case errors.As(err, &connect), errors.Is(err, net.ErrClosed), errors.Is(err, syscall.ECONNRESET), errors.Is(err, syscall.EPIPE),
		pgconn.SafeToRetry(err):
		return errDatabase, true
	case errors.Is(err, context.DeadlineExceeded), errors.Is(err, context.Canceled), errors.As(err, &network) && network.Timeout():
		return errSlow, true
	case strings.Contains(err.Error(), "conn closed"), strings.Contains(err.Error(), "closed pool"), strings.Contains(err.Error(), "unexpected EOF"):
		return errDatabase, true // which have no type of their own
	}
	return problem{}, false
}
