//go:build !linux

package pgcluster

import (
	"context"
	"errors"
)

// A Cluster is a running server. There is none here.
type Cluster struct{ URL string }

var errElsewhere = errors.New("a private PostgreSQL can be run on Linux alone; set DATABASE_URL to use another server")

// Start says that there is none here.
func Start(context.Context, string) (*Cluster, error) { return nil, errElsewhere }

// StartThrowaway says that there is none here.
func StartThrowaway(context.Context) (*Cluster, error) { return nil, errElsewhere }

// Stop does nothing.
func (c *Cluster) Stop() error { return nil }
