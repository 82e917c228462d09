// Package storetest gives tests stores on a throw-away database server. There is one
// server for the tests of a package, and as many databases on it as they like: each is a
// copy of one that has its tables already, so that it is there in a moment.
package storetest

import (
	"context"
	"errors"
	"fmt"
	"net/url"
	"os"
	"strings"
	"sync"
	"testing"

	"github.com/google/uuid"
	"github.com/jackc/pgx/v5"
	"github.com/stretchr/testify/require"

	"manudrill/pgcluster"
	"manudrill/store"
)

// Studio is the one that the people of a test are in.
var Studio = uuid.New()

// In returns a context in which the studio of a test is asked.
func In(ctx context.Context) context.Context { return store.Within(ctx, store.Scope{Studio: Studio}) }

// Run runs a package's tests and returns the code to exit with. The server that they may
// have begun ends with them.
func Run(m interface{ Run() int }) int {
	code := m.Run()
	if err := stop(); err != nil {
		fmt.Fprintln(os.Stderr, err)
		code = 1
	}
	return code
}

// Main is [Run] for a package whose tests share a store, which use is given before they
// begin.
func Main(m interface{ Run() int }, use func(*store.Store), people ...store.Person) int {
	shared, err := open(context.Background(), people)
	if err != nil {
		fmt.Fprintln(os.Stderr, errors.Join(err, stop()))
		return 1
	}
	use(shared)
	return Run(closing{m, shared})
}

// closing closes the store that tests have shared.
type closing struct {
	tests  interface{ Run() int }
	shared *store.Store
}

func (c closing) Run() int {
	defer c.shared.Close()
	return c.tests.Run()
}

// Open opens a store on a database of the test's own. Where people are given it has a
// studio with them.
func Open(t testing.TB, people ...store.Person) *store.Store {
	t.Helper()
	s, err := open(t.Context(), people)
	require.NoError(t, err)
	t.Cleanup(s.Close)
	return s
}

func open(ctx context.Context, people []store.Person) (*store.Store, error) {
	url, err := fresh(ctx)
	if err != nil {
		return nil, err
	}
	s, err := store.Open(ctx, url)
	if err != nil {
		return nil, err
	}
	if len(people) > 0 {
		err = s.AddStudio(ctx, Studio, "Test studio")
	}
	for _, p := range people {
		err = errors.Join(err, s.AddPerson(In(ctx), p))
	}
	if err != nil {
		s.Close()
		return nil, err
	}
	return s, nil
}

// The server, begun by the first who needs it.
var (
	mu     sync.Mutex
	server *pgcluster.Cluster
)

func stop() error {
	mu.Lock()
	defer mu.Unlock()
	if server == nil {
		return nil
	}
	return server.Stop()
}

// template is the database of which the others are copies.
const template = "template"

// fresh makes a database and returns its connection string.
func fresh(ctx context.Context) (string, error) {
	mu.Lock()
	defer mu.Unlock()
	if server == nil {
		if err := begin(ctx); err != nil {
			return "", err
		}
	}
	name := "t" + strings.ReplaceAll(uuid.NewString(), "-", "")
	return named(name), do(ctx, "CREATE DATABASE "+name+" TEMPLATE "+pgx.Identifier{template}.Sanitize())
}

// begin starts the server and makes the template. A copy gets a name of the house's own.
func begin(ctx context.Context) error {
	started, err := pgcluster.StartThrowaway(context.WithoutCancel(ctx))
	if err != nil {
		return err
	}
	server = started
	if err := do(ctx, "CREATE DATABASE "+pgx.Identifier{template}.Sanitize()); err != nil {
		return err
	}
	s, err := store.Open(ctx, named(template))
	if err != nil {
		return err
	}
	defer s.Close()
	_, err = s.Pool().Exec(store.AsHouse(ctx), `DELETE FROM facts WHERE name = 'house'`)
	return err
}

// named is the connection string of a database of the server.
func named(name string) string {
	u, err := url.Parse(server.URL)
	if err != nil {
		panic(err) // the server's own
	}
	u.Path = "/" + name
	return u.String()
}

// do runs a statement that is about databases.
func do(ctx context.Context, statement string) error {
	conn, err := pgx.Connect(ctx, server.URL)
	if err != nil {
		return err
	}
	_, err = conn.Exec(ctx, statement)
	return errors.Join(err, conn.Close(ctx))
}
