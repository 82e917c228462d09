// Command bench-server measures how fast the server answers: beside the barest
// handler that asks the same database for the same rows, and for students with a
// hundred to ten thousand takes. All figures of one line are of one run, taken by
// turns, so that a busy machine slows both.
package main

import (
	"context"
	"fmt"
	"log"
	"net/http/httptest"
	"os"
	"slices"
	"testing/fstest"
	"text/tabwriter"
	"time"

	"github.com/google/uuid"
	"github.com/jackc/pgx/v5/pgxpool"

	"manudrill/pgcluster"
	"manudrill/server"
	"manudrill/server/jobs"
	"manudrill/store"
)

func main() {
	if err := run(context.Background()); err != nil {
		log.Fatal(err)
	}
}

// studio is the one that is measured.
var studio = uuid.New()

func run(ctx context.Context) error {
	cluster, err := pgcluster.StartThrowaway(ctx)
	if err != nil {
		return err
	}
	defer func() { _ = cluster.Stop() }()
	s, err := store.Open(ctx, cluster.URL)
	if err != nil {
		return err
	}
	defer s.Close()
	fmt.Fprintln(os.Stderr, "Filling a studio of 200 students")
	if err := s.AddStudio(ctx, studio, "Studio"); err != nil {
		return err
	}
	ctx = store.Within(ctx, store.Scope{Studio: studio})
	f, err := fill(ctx, s)
	if err != nil {
		return err
	}
	plain, err := pgxpool.New(ctx, cluster.URL) // which sees all without being told for whom
	if err != nil {
		return err
	}
	defer plain.Close()
	pages := fstest.MapFS{"index.html": {Data: []byte("<title>Manudrill</title>")}}
	handler, err := server.New(s, pages, server.Options{Demo: true, Limits: server.Limits{SignIns: 1e6, Takes: 1e6, TakesOfAddress: 1e6}})
	if err != nil {
		return err
	}
	ours, bare := httptest.NewServer(handler), httptest.NewServer(barest(plain))
	defer ours.Close()
	defer bare.Close()
	b := bench{ours: ours.URL + "/api", bare: bare.URL, filled: f}
	if err := b.besideTheBarest(); err != nil {
		return err
	}
	if err := b.asItGrows(); err != nil {
		return err
	}
	if err := b.atAGlance(); err != nil {
		return err
	}
	workers, err := jobs.Start(ctx, s, nil)
	if err != nil {
		return err
	}
	defer func() { _ = workers.Stop(ctx) }()
	if err := b.handIns(ctx); err != nil {
		return err
	}
	return b.screensWhileTakesComeIn()
}

// A bench has both servers and the studio.
type bench struct {
	ours, bare string
	filled
}

// rounds are how often each figure is taken; their median is told.
const rounds = 7

// each is how long one round goes on.
const each = 600 * time.Millisecond

// clients ask at once.
const clients = 4

func table() *tabwriter.Writer {
	return tabwriter.NewWriter(os.Stdout, 0, 4, 2, ' ', tabwriter.AlignRight)
}

func median(of []float64) float64 {
	of = slices.Clone(of)
	slices.Sort(of)
	return of[len(of)/2]
}

// besideTheBarest compares the reads that screens make most with the barest
// handler for the same rows.
func (b bench) besideTheBarest() error {
	t := table()
	fmt.Fprintln(t, "read\tours/s\tbarest/s\tratio\t")
	for _, r := range b.reads() {
		var ours, bare, ratio []float64
		for range rounds {
			o, err := throughput(b.visitor(r.as), b.ours+r.path)
			if err != nil {
				return err
			}
			p, err := throughput(nil, b.bare+r.bare)
			if err != nil {
				return err
			}
			ours, bare, ratio = append(ours, o), append(bare, p), append(ratio, o/p)
		}
		fmt.Fprintf(t, "%s\t%.0f\t%.0f\t%.2f\t\n", r.name, median(ours), median(bare), median(ratio))
	}
	return t.Flush()
}

// atAGlance compares the look over ten students with that over all.
func (b bench) atAGlance() error {
	t := table()
	fmt.Fprintln(t, "\nms for a look over\t10 students\t200\tlargest/smallest\t")
	var few, many []float64
	for range rounds {
		for path, into := range map[string]*[]float64{"/glance?groupId=" + b.ten.String(): &few, "/glance": &many} {
			perSecond, err := throughput(b.visitor(b.instructor), b.ours+path)
			if err != nil {
				return err
			}
			*into = append(*into, 1000/perSecond)
		}
	}
	fmt.Fprintf(t, "students at a glance\t%.2f\t%.2f\t%.2f\t\n", median(few), median(many), median(many)/median(few))
	return t.Flush()
}

// asItGrows compares the reads of students with few and with many takes.
func (b bench) asItGrows() error {
	t := table()
	fmt.Fprint(t, "\nms for a student with\t")
	for _, n := range sizes {
		fmt.Fprintf(t, "%d\t", n)
	}
	fmt.Fprintln(t, "largest/smallest\t")
	for _, r := range grown {
		times := make([][]float64, len(sizes))
		for range rounds {
			for i := range sizes {
				perSecond, err := throughput(b.visitor(b.students[i].person), b.ours+r.path(b.students[i]))
				if err != nil {
					return err
				}
				times[i] = append(times[i], 1000/perSecond)
			}
		}
		fmt.Fprintf(t, "%s\t", r.name)
		for i := range sizes {
			fmt.Fprintf(t, "%.2f\t", median(times[i]))
		}
		fmt.Fprintf(t, "%.2f\t\n", median(times[len(sizes)-1])/median(times[0]))
	}
	return t.Flush()
}
