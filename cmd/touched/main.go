// Command touched tells which tests a change touches, as arguments of go test, one line a
// package.
//
//	touched -since REV packages   tests of the packages that depend on what changed
//	touched -since REV browser    tests of the interface, by the map of e2e
//	touched -since REV tests      tests that were themselves changed, with what they call
//
// What changed is the difference between the working tree and a revision; a file that is new
// and not yet added counts.
package main

import (
	"flag"
	"fmt"
	"log"
	"os/exec"
	"path"
	"slices"
	"strings"
)

func main() {
	log.SetFlags(0)
	since := flag.String("since", "HEAD", "revision that the working tree is compared with")
	flag.Parse()
	files, err := changed(*since)
	if err != nil {
		log.Fatal(err)
	}
	var lines []string
	switch flag.Arg(0) {
	case "packages":
		lines, err = packages(files)
	case "browser":
		var all []driven
		all, err = readDriven("e2e")
		lines = browser(all, files)
	case "tests":
		lines, err = tests(files)
	default:
		log.Fatal("say which: packages, browser or tests")
	}
	if err != nil {
		log.Fatal(err)
	}
	for _, line := range lines {
		fmt.Println(line)
	}
}

// A change is a file, and which of its lines are others than they were.
type change struct {
	file  string
	lines [][2]int // first and last, as they are now
}

// changed are the files that differ from a revision, with slashes, from the root.
func changed(since string) ([]change, error) {
	diff, err := output("git", "diff", "--unified=0", "--no-color", "--no-ext-diff", "--no-renames", since)
	if err != nil {
		return nil, err
	}
	files, err := read(diff)
	if err != nil {
		return nil, err
	}
	fresh, err := output("git", "ls-files", "--others", "--exclude-standard")
	for _, name := range strings.Fields(fresh) {
		files = append(files, change{name, [][2]int{{1, 1 << 30}}})
	}
	return files, err
}

// read reads what git diff --unified=0 has written.
func read(diff string) (files []change, err error) {
	for line := range strings.Lines(diff) {
		switch {
		case strings.HasPrefix(line, "diff --git "):
			_, name, _ := strings.Cut(strings.TrimSpace(line), " b/")
			files = append(files, change{file: name})
		case strings.HasPrefix(line, "@@ "):
			var from, n int
			now := strings.Fields(line)[2] // +from,n
			if _, err := fmt.Sscanf(now, "+%d,%d", &from, &n); err != nil {
				n = 1
				if _, err := fmt.Sscanf(now, "+%d", &from); err != nil {
					return nil, fmt.Errorf("%q: %w", line, err)
				}
			}
			last := &files[len(files)-1]
			last.lines = append(last.lines, [2]int{from, from + max(0, n-1)})
		}
	}
	return files, nil
}

// packages are those with tests that depend on what changed, without the interface, which
// has a map.
func packages(files []change) ([]string, error) {
	listed, err := output("go", "list", "-test", "-f", `{{if not .ForTest}}{{.ImportPath}} {{join .Deps " "}}{{end}}`, "./...")
	if err != nil {
		return nil, err
	}
	return dependent(listed, files), nil
}

// dependent are the packages of which the tests, listed as "package.test" with all that they
// depend on, depend on files.
func dependent(listed string, files []change) (out []string) {
	is, needs := map[string]bool{}, map[string][]string{}
	for line := range strings.Lines(listed) {
		if of := strings.Fields(line); len(of) > 0 {
			is[of[0]] = true
			if name, tests := strings.CutSuffix(of[0], ".test"); tests && name != "manudrill/e2e" {
				needs[name] = append(of, name)
			}
		}
	}
	for _, f := range files {
		in := path.Join("manudrill", path.Dir(f.file)) // or, for what is no code, the nearest above
		for ; !is[in] && strings.Contains(in, "/"); in = path.Dir(in) {
		}
		if strings.HasPrefix(f.file, "web/src/") {
			continue // tested by itself, and in the browser
		}
		for name, all := range needs {
			if slices.Contains(all, in) {
				out = append(out, "./"+strings.TrimPrefix(name, "manudrill/"))
			}
		}
	}
	slices.Sort(out)
	return slices.Compact(out)
}

func output(name string, args ...string) (string, error) {
	out, err := exec.Command(name, args...).Output()
	if failed, ok := err.(*exec.ExitError); ok {
		return "", fmt.Errorf("%s: %w: %s", name, err, failed.Stderr)
	}
	return string(out), err
}
