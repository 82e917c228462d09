// Command bench-listen sets the whole analysis of takes beside aubio's onset and
// pitch detectors on the same sound, in one run on one core, and prints the
// ratios. Takes are those of a folder (NAME.flac with NAME.chart.json), or some
// that the simulated player makes.
package main

import (
	"bufio"
	"encoding/json"
	"errors"
	"fmt"
	"io"
	"os"
	"os/exec"
	"path/filepath"
	"strconv"
	"strings"
	"syscall"
	"time"

	"manudrill/core/drill"
	"manudrill/core/guitar"
	"manudrill/core/simulate"
	"manudrill/formats/sound"
)

// rounds is how often each program hears a take; the fastest time counts, because
// the noise of a machine only ever adds.
const rounds = 3

func main() {
	args := append(os.Args[1:], "", "", "")
	err := error(nil)
	if args[0] == "make" {
		err = makeTake(args[1], args[2])
	} else {
		err = run(args[0], args[1])
	}
	if err != nil {
		fmt.Fprintln(os.Stderr, err)
		os.Exit(1)
	}
}

func run(manudrill, folder string) error {
	made, err := os.MkdirTemp("", "bench-listen")
	if err != nil {
		return err
	}
	defer os.RemoveAll(made)
	for name, passes := range map[string]string{"short": "3", "long": "60"} {
		// Made by a program of its own: what a program holds when it starts another
		// counts as memory of that one too.
		if out, err := exec.Command(os.Args[0], "make", filepath.Join(made, name), passes).CombinedOutput(); err != nil {
			return fmt.Errorf("%w: %s", err, out)
		}
	}
	if folder == "" {
		folder = made
	}
	takes, err := filepath.Glob(filepath.Join(folder, "*.flac"))
	if err != nil || len(takes) == 0 {
		return errors.Join(err, fmt.Errorf("no takes (*.flac) in %s", folder))
	}
	if err := compareSpeed(manudrill, takes); err != nil {
		return err
	}
	return compareMemory(manudrill, filepath.Join(made, "short"), filepath.Join(made, "long"))
}

// makeTake writes a take of a slurred drill of so many passes and its chart.
func makeTake(name, passes string) error {
	n, err := strconv.Atoi(passes)
	if err != nil {
		return err
	}
	d := drill.New("bench", drill.SlurCombinations{Combinations: [][]int{{1, 2, 4}}, Slur: drill.HammerOns})
	d.Path.Back, d.Rhythm.NotesPerBeat, d.Rhythm.Passes = drill.Returns, 3, n
	chart, err := d.Chart(guitar.Standard(), 90)
	if err != nil {
		return err
	}
	_, x, err := simulate.Player{Seed: 1, ClockMs: 6, MotorMs: 4, NoiseDB: -60}.Take(chart)
	if err != nil {
		return err
	}
	flac, err := sound.FromMono(simulate.Rate, x).EncodeFLAC()
	if err != nil {
		return err
	}
	raw, err := json.Marshal(chart)
	if err != nil {
		return err
	}
	return errors.Join(os.WriteFile(name+".flac", flac, 0o600), os.WriteFile(name+".chart.json", raw, 0o600))
}

// compareSpeed runs all programs over all takes, by turns over each.
func compareSpeed(manudrill string, takes []string) error {
	seconds := 0.0
	for _, take := range takes {
		length, err := duration(take)
		if err != nil {
			return err
		}
		seconds += length
	}
	programs := []func(take string) []string{
		func(take string) []string { return []string{"aubioonset", "-i", take} },
		func(take string) []string { return []string{"aubiopitch", "-i", take} },
		func(take string) []string { return analyze(manudrill, strings.TrimSuffix(take, ".flac")) },
	}
	total := make([]time.Duration, len(programs))
	for _, take := range takes {
		best := make([]time.Duration, len(programs))
		for round := range rounds {
			for i, args := range programs {
				spent, _, err := cost(args(take))
				if err != nil {
					return err
				}
				if round == 0 || spent < best[i] {
					best[i] = spent
				}
			}
		}
		for i, spent := range best {
			total[i] += spent
		}
	}
	fmt.Printf("%d takes, %.0f s of sound, one core; processor seconds, best of %d rounds\n", len(takes), seconds, rounds)
	for i, name := range []string{"aubioonset", "aubiopitch", "manudrill analyze"} {
		fmt.Printf("  %-18s %7.2f s  %4.0f times real time\n", name, total[i].Seconds(), seconds/total[i].Seconds())
	}
	fmt.Printf("  aubio's pair takes %.1f times as long as manudrill\n", float64(total[0]+total[1])/float64(total[2]))
	return nil
}

// duration reads a take through, without holding it.
func duration(take string) (seconds float64, err error) {
	file, err := os.Open(take)
	if err != nil {
		return 0, err
	}
	defer file.Close()
	r, err := sound.Open(bufio.NewReader(file))
	if err != nil {
		return 0, err
	}
	for {
		block, err := r.Next()
		if errors.Is(err, io.EOF) {
			return seconds, nil
		}
		if err != nil {
			return 0, err
		}
		seconds += float64(len(block[0])) / float64(r.Rate)
	}
}

// compareMemory sets the memory for a take beside that for one twenty times as
// long.
func compareMemory(manudrill, short, long string) error {
	_, less, err := cost(analyze(manudrill, short))
	if err != nil {
		return err
	}
	_, more, err := cost(analyze(manudrill, long))
	if err != nil {
		return err
	}
	fmt.Printf("memory at most: %d MB for a take, %d MB for one twenty times as long\n", less>>20, more>>20)
	return nil
}

func analyze(manudrill, take string) []string {
	return []string{manudrill, "analyze", "--chart", take + ".chart.json", take + ".flac"}
}

// cost runs a command on one core. It returns its processor time and the most
// memory it held, in bytes.
func cost(args []string) (time.Duration, int64, error) {
	cmd := exec.Command("taskset", append([]string{"-c", "0"}, args...)...)
	cmd.Env = append(os.Environ(), "GOMAXPROCS=1")
	cmd.Stderr = os.Stderr
	if err := cmd.Run(); err != nil {
		return 0, 0, fmt.Errorf("%s: %w; aubio comes with 'make install-bench-tools'", strings.Join(args, " "), err)
	}
	s := cmd.ProcessState
	usage, ok := s.SysUsage().(*syscall.Rusage)
	if !ok {
		return 0, 0, errors.New("this system does not tell how much memory a program held")
	}
	return s.UserTime() + s.SystemTime(), usage.Maxrss << 10, nil
}
