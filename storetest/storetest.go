// Package storetest gives tests a store of their own on a throw-away database.
package storetest

import (
	"context"
	"errors"
	"fmt"
	"os"

	"github.com/google/uuid"

	"manudrill/pgcluster"
	"manudrill/store"
)

// Studio is the one that the people of a test are in.
var Studio = uuid.New()

// In returns a context in which the studio of a test is asked.
func In(ctx context.Context) context.Context { return store.Within(ctx, store.Scope{Studio: Studio}) }

// Open starts a database, opens a store in it and, where people
// are given, adds a studio with them. The caller calls
// close, once a package run.
func Open(ctx context.Context, people ...store.Person) (s *store.Store, close func() error, err error) {
	cluster, err := pgcluster.StartThrowaway(ctx)
	if err != nil {
		return nil, nil, err
	}
	if s, err = store.Open(ctx, cluster.URL); err != nil {
		return nil, nil, errors.Join(err, cluster.Stop())
	}
	close = func() error {
		s.Close()
		return cluster.Stop()
	}
	if len(people) == 0 {
		return s, close, nil
	}
	if err := s.AddStudio(ctx, Studio, "Test studio"); err != nil {
		return nil, nil, errors.Join(err, close())
	}
	for _, p := range people {
		if err := s.AddPerson(In(ctx), p); err != nil {
			return nil, nil, errors.Join(err, close())
		}
	}
	return s, close, nil
}

// Main runs a package's tests with one store, which use is given before they
// begin, and returns the code to exit with.
func Main(m interface{ Run() int }, use func(*store.Store), people ...store.Person) int {
	opened, closeStore, err := Open(context.Background(), people...)
	if err != nil {
		fmt.Fprintln(os.Stderr, err)
		return 1
	}
	use(opened)
	code := m.Run()
	if err := closeStore(); err != nil {
		fmt.Fprintln(os.Stderr, err)
		code = 1
	}
	return code
}
