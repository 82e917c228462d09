// Command tested runs Go tests, tells how they went as they end, and counts them. What was
// skipped is counted too, with its reason: a test that asks nothing must not go unseen.
//
//	tested -to FILE go test …    runs tests and adds their count to a file
//	tested -sum FILE…            prints the counts of files, added up; Vitest's too
package main

import (
	"encoding/json"
	"errors"
	"flag"
	"fmt"
	"io"
	"log"
	"os"
	"os/exec"
	"slices"
	"strings"
)

func main() {
	log.SetFlags(0)
	to := flag.String("to", "", "file to which the count is written")
	sum := flag.Bool("sum", false, "print the counts of files, added up")
	flag.Parse()
	if err := do(*to, *sum, flag.Args()); err != nil {
		log.Fatal(err)
	}
}

func do(to string, sum bool, args []string) error {
	if sum {
		return printSum(os.Stdout, args)
	}
	if len(args) < 2 || args[0] != "go" || args[1] != "test" {
		return errors.New("say what is to be run: go test, and its arguments")
	}
	cmd := exec.Command("go", append([]string{"test", "-json"}, args[2:]...)...)
	cmd.Stderr = os.Stderr
	out, err := cmd.StdoutPipe()
	if err != nil {
		return err
	}
	if err := cmd.Start(); err != nil {
		return err
	}
	c, err := read(out, os.Stdout)
	if err := errors.Join(err, cmd.Wait(), c.write(to)); err != nil {
		return err
	}
	if c.Passed == 0 {
		return errors.New("no test was run")
	}
	return nil
}

// A count is how tests went.
type count struct {
	Passed, Failed int
	Skipped        []string // tests, each with its reason
}

func (c count) write(to string) error {
	if to == "" {
		return nil
	}
	raw, err := json.Marshal(c)
	if err != nil {
		return err
	}
	return os.WriteFile(to, raw, 0o644)
}

// printSum prints the counts of files, added up, the reasons of what was skipped first.
func printSum(w io.Writer, files []string) error {
	var all count
	for _, name := range files {
		raw, err := os.ReadFile(name)
		if err != nil {
			return err
		}
		c, err := counted(raw)
		if err != nil {
			return fmt.Errorf("%s: %w", name, err)
		}
		all.Passed += c.Passed
		all.Failed += c.Failed
		all.Skipped = append(all.Skipped, c.Skipped...)
	}
	slices.Sort(all.Skipped)
	for _, s := range all.Skipped {
		fmt.Fprintln(w, "skipped:", s)
	}
	_, err := fmt.Fprintf(w, "%d passed, %d failed, %d skipped\n", all.Passed, all.Failed, len(all.Skipped))
	return err
}

// counted reads a count that was written, or what Vitest says of the front end's tests
// (--reporter=json, the form of Jest's).
func counted(raw []byte) (count, error) {
	var c struct {
		count
		NumPassedTests, NumFailedTests int
		TestResults                    []struct {
			AssertionResults []struct{ Status, FullName string }
		}
	}
	err := json.Unmarshal(raw, &c)
	c.Passed += c.NumPassedTests
	c.Failed += c.NumFailedTests
	for _, file := range c.TestResults {
		for _, t := range file.AssertionResults {
			if t.Status != "passed" && t.Status != "failed" {
				c.Skipped = append(c.Skipped, fmt.Sprintf("web %s: %s", t.FullName, t.Status))
			}
		}
	}
	return c.count, err
}

// An event is one line of go test -json (cmd/test2json).
type event struct {
	Action, Package, Test, Output, ImportPath string
	Elapsed                                   float64 // s
}

// read reads events, tells of packages as they end and of tests that fail, and counts
// tests; those within others are not counted.
func read(from io.Reader, tell io.Writer) (c count, err error) {
	said := map[[2]string][]string{} // by package and test
	for d := json.NewDecoder(from); ; {
		var e event
		if err := d.Decode(&e); err == io.EOF {
			return c, nil
		} else if err != nil {
			return c, err
		}
		of := [2]string{e.Package, e.Test}
		inner := strings.Contains(e.Test, "/")
		switch e.Action {
		case "build-output":
			fmt.Fprint(tell, e.Output)
		case "output":
			said[of] = append(said[of], e.Output)
		case "pass":
			if e.Test == "" {
				fmt.Fprintf(tell, "ok\t%s\t%.1fs\n", e.Package, e.Elapsed)
			} else if !inner {
				c.Passed++
			}
			delete(said, of)
		case "skip":
			if e.Test != "" {
				c.Skipped = append(c.Skipped, fmt.Sprintf("%s %s: %s", e.Package, e.Test, reason(said[of])))
			}
			delete(said, of)
		case "fail":
			if e.Test == "" {
				tellUnended(said, e.Package, tell)
			}
			fmt.Fprint(tell, strings.Join(said[of], ""))
			delete(said, of)
			if e.Test == "" {
				fmt.Fprintf(tell, "FAIL\t%s\t%.1fs\n", e.Package, e.Elapsed)
			} else if !inner {
				c.Failed++
			}
		}
	}
}

// tellUnended tells what tests of a package have said that never ended: where it panics, or is
// ended for taking too long, that is told in the name of one of them.
func tellUnended(said map[[2]string][]string, of string, tell io.Writer) {
	for test, lines := range said {
		if test[0] == of && test[1] != "" {
			fmt.Fprint(tell, strings.Join(lines, ""))
			delete(said, test)
		}
	}
}

// reason is what a skipped test has said, without its place and go test's own lines.
func reason(said []string) string {
	var words []string
	for _, line := range said {
		line = strings.TrimSpace(line)
		if line == "" || strings.HasPrefix(line, "===") || strings.HasPrefix(line, "---") {
			continue
		}
		if _, after, is := strings.Cut(line, ".go:"); is {
			_, line, _ = strings.Cut(after, ": ")
		}
		words = append(words, line)
	}
	return strings.Join(words, " ")
}
