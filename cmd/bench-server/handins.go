package main

import (
	"bytes"
	"context"
	"fmt"
	"io"
	"net/http"
	"slices"
	"sync"
	"time"

	"github.com/google/uuid"
)

// handIn hands a recording in and returns how long the answer took.
func (b bench) handIn(c *http.Client, p pupil, wav []byte) (time.Duration, error) {
	id := uuid.New()
	url := fmt.Sprintf("%s/assignments/%s/takes/%s?source=file&bpm=60", b.ours, p.assignment, id)
	req, err := http.NewRequest(http.MethodPut, url, bytes.NewReader(append(bytes.Clone(wav), id.String()...))) // each file is another
	if err != nil {
		return 0, err
	}
	req.Header.Set("Content-Type", "application/octet-stream")
	began := time.Now()
	resp, err := c.Do(req)
	if err != nil {
		return 0, err
	}
	defer resp.Body.Close()
	if _, err := io.Copy(io.Discard, resp.Body); err != nil {
		return 0, err
	}
	if resp.StatusCode > http.StatusAccepted {
		return 0, fmt.Errorf("a hand-in is answered with %s", resp.Status)
	}
	return time.Since(began), nil
}

// handIns compares how long students with few and with many takes wait for the
// verdict on one more.
func (b bench) handIns(context.Context) error {
	wav, err := recording(5)
	if err != nil {
		return err
	}
	times := make([][]float64, len(sizes))
	for range 3 * rounds {
		for i, p := range b.students {
			c := b.visitor(p.person)
			took, err := b.handIn(c, p, wav)
			if err != nil {
				return err
			}
			times[i] = append(times[i], float64(took.Microseconds())/1000)
		}
	}
	t := table()
	fmt.Fprint(t, "hand-in to verdict\t")
	for i := range sizes {
		fmt.Fprintf(t, "%.1f\t", median(times[i]))
	}
	fmt.Fprintf(t, "%.2f\t\n", median(times[len(sizes)-1])/median(times[0]))
	return t.Flush()
}

// screensWhileTakesComeIn compares how long "who is here" takes while nothing goes
// on and while ten takes come in at once. The workers run in this process here;
// when it is served, they run behind it.
func (b bench) screensWhileTakesComeIn() error {
	wav, err := recording(6)
	if err != nil {
		return err
	}
	screen := b.visitor(b.instructor)
	idle, err := latencies(screen, b.ours+"/session", func() bool { return false }, 200)
	if err != nil {
		return err
	}
	var wg sync.WaitGroup
	done := make(chan struct{})
	faults := make([]error, 10)
	for i := range faults {
		wg.Go(func() {
			c := b.visitor(b.students[i%len(b.students)].person)
			_, faults[i] = b.handIn(c, b.students[i%len(b.students)], wav)
		})
	}
	go func() {
		wg.Wait()
		close(done)
	}()
	busy, err := latencies(screen, b.ours+"/session", func() bool {
		select {
		case <-done:
			return true
		default:
			return false
		}
	}, 100_000)
	if err != nil {
		return err
	}
	for _, fault := range faults {
		if fault != nil {
			return fault
		}
	}
	fmt.Printf("\n/session: %.2f ms idle, %.2f ms while ten takes come in: %.1f times; at the 95th percentile %.2f and %.2f ms\n",
		median(idle), median(busy), median(busy)/median(idle), percentile95(idle), percentile95(busy))
	return nil
}

// latencies are those of one request after another, in ms, until it is over or
// there are enough.
func latencies(c *http.Client, url string, over func() bool, enough int) ([]float64, error) {
	var all []float64
	for len(all) == 0 || len(all) < enough && !over() {
		began := time.Now()
		if err := get(c, url); err != nil {
			return nil, err
		}
		all = append(all, float64(time.Since(began).Microseconds())/1000)
	}
	return all, nil
}

func percentile95(of []float64) float64 {
	of = slices.Clone(of)
	slices.Sort(of)
	return of[len(of)*95/100]
}
