// Package storetest gives tests a store of their own on a throw-away database.
package storetest

import (
	"context"
	"errors"
	"fmt"
	"os"

	"manudrill/pgcluster"
	"manudrill/store"
)

// Open starts a database, opens a store in it and adds people. The caller calls
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
	for _, p := range people {
		if err := s.AddPerson(ctx, p); err != nil {
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
