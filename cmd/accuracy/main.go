// Command accuracy listens to a corpus of takes whose truth is exact because it makes
// them itself, and prints how well they were heard, by condition, the worst first.
//
// The sounds are the recorded guitars of a free General MIDI font, put together note
// by note with slurs that have no attack of their own, played by the simulated player
// with its mistakes, and set in rooms, behind telephones and codecs, among voices,
// music, hum and clicks. The same seed makes the same takes. Half of them are kept
// apart: they are asked for by -half kept when the listener is to
// be judged, and not while it is being changed.
package main

import (
	"cmp"
	"flag"
	"fmt"
	"os"
	"runtime"
	"slices"
	"strings"
	"sync"
)

func main() {
	half := flag.String("half", "hand", `which takes: "hand" while the listener is changed, "kept" to judge it`)
	only := flag.String("only", "", "only conditions with this in their name")
	each := flag.Int("takes", 2, "takes of each condition")
	verbose := flag.Bool("v", false, "tell what was heard wrong")
	write := flag.String("write", "", "write the takes into this folder, too")
	course := flag.String("course", "", `what learners do in the middle of a take instead: told "midi", or by its "sound"`)
	flag.Parse()
	if *course != "" {
		if err := runCourses(*half, *each, *course == "sound", *verbose); err != nil {
			fmt.Fprintln(os.Stderr, err)
			os.Exit(1)
		}
		return
	}
	if err := run(*half, *only, *write, *each, *verbose); err != nil {
		fmt.Fprintln(os.Stderr, err)
		os.Exit(1)
	}
}

func runCourses(half string, each int, bySound, verbose bool) error {
	scores, err := playCourses(map[string]int{"hand": atHand, "kept": keptApart}[half], each, bySound)
	if err == nil {
		reportCourses(os.Stdout, scores, verbose)
	}
	return err
}

func run(half, only, folder string, each int, verbose bool) error {
	of, ok := map[string]int{"hand": atHand, "kept": keptApart}[half]
	if !ok {
		return fmt.Errorf(`there is no half %q; say "hand" or "kept"`, half)
	}
	chosen := slices.DeleteFunc(recipes(of, each), func(r recipe) bool { return !strings.Contains(r.condition.name, only) })
	scores, err := heardAll(chosen, func(t *take, _ verdict) error {
		if folder == "" {
			return nil
		}
		return t.writeTo(folder)
	})
	if err != nil {
		return err
	}
	report(os.Stdout, scores, verbose)
	return nil
}

// heardAll makes all takes and scores them, by condition. also is done with each.
func heardAll(chosen []recipe, also func(*take, verdict) error) (map[string]*tally, error) {
	var (
		mu     sync.Mutex
		all    = map[string]*tally{}
		failed error
		next   = make(chan recipe)
		done   sync.WaitGroup
		banks  = newBanks()
	)
	for range runtime.NumCPU() {
		done.Go(func() {
			for r := range next {
				t, err := r.make(banks.of)
				var s tally
				if err == nil {
					v := t.hear()
					s.add(t, v)
					err = also(t, v)
				}
				mu.Lock()
				if failed = cmp.Or(failed, err); err == nil {
					if all[r.condition.name] == nil {
						all[r.condition.name] = &tally{}
					}
					all[r.condition.name].merge(&s)
				}
				mu.Unlock()
			}
		})
	}
	for _, r := range chosen {
		next <- r
	}
	close(next)
	done.Wait()
	return all, failed
}

// banks are recorded when they are first asked for, each once.
type banks struct {
	mu  sync.Mutex
	has map[int]func() (bank, error)
}

func newBanks() *banks { return &banks{has: map[int]func() (bank, error){}} }

func (b *banks) of(program int) (bank, error) {
	b.mu.Lock()
	one, ok := b.has[program]
	if !ok {
		one = sync.OnceValues(func() (bank, error) { return record(program) })
		b.has[program] = one
	}
	b.mu.Unlock()
	return one()
}
