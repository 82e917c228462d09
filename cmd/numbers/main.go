// Command numbers lists the numbers on which every verdict rests, and which tests notice
// when one is raised by 30 %. It writes docs/numbers.md: "make numbers".
//
// A number is a named constant of the listener or of the follower whose value is
// written out. Its reason stands in the comment beside it in the code; the list repeats
// the beginning. A number that has been asked about and is as it was is not asked again,
// unless -again says so.
package main

import (
	"encoding/json"
	"errors"
	"flag"
	"fmt"
	"go/ast"
	"go/constant"
	"go/parser"
	"go/token"
	"go/types"
	"io/fs"
	"os"
	"os/exec"
	"path/filepath"
	"regexp"
	"runtime"
	"slices"
	"strings"
	"sync"
	"time"
)

// rooms are where the numbers are.
var rooms = []string{"core/listen", "core/listen/dsp", "core/follow"}

// tests are run one after the other until one notices: the quick ones first.
var tests = [][]string{
	{"./core/listen/...", "./core/follow"},
	{"-run", "LearnersDoIsUnderstood", "./cmd/accuracy"},
	{"-run", "SmallPart|WrittenDown", "./cmd/accuracy"},
}

// A number is a constant with its value.
type number struct {
	name, file, value, reason string
	raised                    string
	from, to                  int // where its value stands in the file
	noticed                   string
}

func main() {
	out := flag.String("out", "docs/numbers.md", "where to write the list")
	within := flag.Duration("within", 24*time.Hour, "numbers not asked about by then are listed as such")
	again := flag.Bool("again", false, "ask about all, those too whose answer is in the list")
	flag.Parse()
	if err := run(*out, time.Now().Add(*within), *again); err != nil {
		fmt.Fprintln(os.Stderr, err)
		os.Exit(1)
	}
}

func run(out string, until time.Time, again bool) error {
	var all []*number
	for _, room := range rooms {
		of, err := numbersOf(room)
		if err != nil {
			return err
		}
		all = append(all, of...)
	}
	open := all
	if !again {
		before, err := os.ReadFile(out)
		if err != nil && !errors.Is(err, fs.ErrNotExist) {
			return err
		}
		open = unanswered(all, string(before))
	}
	if err := raiseEach(open, until); err != nil {
		return err
	}
	return os.WriteFile(out, []byte(table(all)), 0o644)
}

// numbersOf finds the numbers of a room.
func numbersOf(room string) ([]*number, error) {
	files, err := filepath.Glob(filepath.Join(room, "*.go"))
	if err != nil {
		return nil, err
	}
	var all []*number
	for _, file := range files {
		if strings.HasSuffix(file, "_test.go") {
			continue
		}
		of, err := numbersIn(file)
		if err != nil {
			return nil, err
		}
		all = append(all, of...)
	}
	return all, nil
}

func numbersIn(file string) ([]*number, error) {
	source, err := os.ReadFile(file)
	if err != nil {
		return nil, err
	}
	set := token.NewFileSet()
	tree, err := parser.ParseFile(set, file, source, parser.ParseComments)
	if err != nil {
		return nil, err
	}
	var all []*number
	for _, d := range tree.Decls {
		group, ok := d.(*ast.GenDecl)
		if !ok || group.Tok != token.CONST {
			continue
		}
		for _, s := range group.Specs {
			spec := s.(*ast.ValueSpec)
			for i, name := range spec.Names {
				if i >= len(spec.Values) {
					continue
				}
				from, to := set.Position(spec.Values[i].Pos()).Offset, set.Position(spec.Values[i].End()).Offset
				n := &number{name: name.Name, file: file, value: string(source[from:to]), from: from, to: to, reason: reasonOf(spec, group)}
				if n.raised = raised(n.value); n.raised != "" && n.name != "Version" {
					all = append(all, n)
				}
			}
		}
	}
	return all, nil
}

// raised is a value raised by 30 %, a whole number by one at the least; empty where it is
// no number that is written out.
func raised(value string) string {
	v, err := types.Eval(token.NewFileSet(), nil, token.NoPos, value)
	if err != nil || v.Value == nil {
		return ""
	}
	f, _ := constant.Float64Val(constant.ToFloat(v.Value))
	switch v.Value.Kind() {
	case constant.Int:
		return fmt.Sprint(int(f) + max(1, int(0.3*f+0.5)))
	case constant.Float:
		return fmt.Sprint(f + 0.3*max(f, -f))
	}
	return ""
}

// reasonOf is what is said of a constant: beside it, above it, or above its group.
func reasonOf(spec *ast.ValueSpec, group *ast.GenDecl) string {
	for _, c := range []*ast.CommentGroup{spec.Comment, spec.Doc, group.Doc} {
		if text := strings.Join(strings.Fields(c.Text()), " "); text != "" {
			return text
		}
	}
	return ""
}

// unanswered are the numbers that a list has no answer for; the others get theirs from it.
func unanswered(all []*number, list string) []*number {
	answers := map[string]string{}
	for row := range strings.Lines(list) {
		if cells := strings.Split(strings.TrimSpace(row), " | "); len(cells) == 5 {
			answers[strings.Join(cells[:3], " ")] = strings.TrimSuffix(strings.TrimSuffix(cells[4], "|"), " ")
		}
	}
	return slices.DeleteFunc(slices.Clone(all), func(n *number) bool {
		answer, ok := answers["| "+n.name+" "+n.value+" "+n.file]
		if !ok || answer == notAsked {
			return false
		}
		n.noticed = answer
		return true
	})
}

// notAsked is said of a number that there was no time for.
const notAsked = "not asked"

// raiseEach raises one number after another, and runs the tests.
func raiseEach(all []*number, until time.Time) error {
	var (
		done   sync.WaitGroup
		next   = make(chan *number)
		mu     sync.Mutex
		failed error
	)
	for range runtime.NumCPU() {
		done.Go(func() {
			for n := range next {
				if time.Now().After(until) {
					n.noticed = notAsked
					continue
				}
				noticed, err := n.noticedBy()
				mu.Lock()
				n.noticed, failed = noticed, errors.Join(failed, err)
				fmt.Printf("%s %s: %s\n", n.file, n.name, noticed)
				mu.Unlock()
			}
		})
	}
	for _, n := range all {
		next <- n
	}
	close(next)
	done.Wait()
	return failed
}

// firstFailure is how go test names a test that fails.
var firstFailure = regexp.MustCompile(`(?m)^\s*--- FAIL: (\S+)`)

// noticedBy returns the first test that fails with the number raised; empty for none.
func (n *number) noticedBy() (string, error) {
	folder, err := os.MkdirTemp("", "manudrill-number-")
	if err != nil {
		return "", err
	}
	defer os.RemoveAll(folder)
	overlay, err := n.overlay(folder)
	if err != nil {
		return "", err
	}
	for _, args := range tests {
		args = append([]string{"test", "-count=1", "-failfast", "-overlay", overlay}, args...)
		said, err := exec.Command("go", args...).CombinedOutput()
		if err == nil {
			continue
		}
		if name := firstFailure.FindSubmatch(said); name != nil {
			return string(name[1]), nil
		}
		return "it does not build, or panics", nil
	}
	return "", nil
}

// overlay writes the file with the number raised, and what tells the go command of it.
func (n *number) overlay(folder string) (string, error) {
	source, err := os.ReadFile(n.file)
	if err != nil {
		return "", err
	}
	other := filepath.Join(folder, "raised.go")
	text := slices.Concat(source[:n.from], []byte(n.raised), source[n.to:])
	if err := os.WriteFile(other, text, fs.FileMode(0o600)); err != nil {
		return "", err
	}
	whole, err := filepath.Abs(n.file)
	if err != nil {
		return "", err
	}
	told, err := json.Marshal(map[string]map[string]string{"Replace": {whole: other}})
	if err != nil {
		return "", err
	}
	path := filepath.Join(folder, "overlay.json")
	return path, os.WriteFile(path, told, 0o600)
}

// longestReason is how much of a reason the list repeats.
const longestReason = 160

func table(all []*number) string {
	noticed, asked := 0, 0
	for _, n := range all {
		if n.noticed == notAsked {
			continue
		}
		if asked++; n.noticed != "" {
			noticed++
		}
	}
	var b strings.Builder
	fmt.Fprintf(&b, `<!-- Made by "make numbers"; not to be edited. -->
# The numbers a verdict rests on

Each constant of the listener and of the comparison, its value, the reason that stands beside it in the code, and
the first test that fails when it is raised by 30 %% (whole numbers by one at the least). %d of %d are noticed.

| number | value | where | what it is | noticed by |
|---|---|---|---|---|
`, noticed, asked)
	for _, n := range all {
		reason := n.reason
		if len(reason) > longestReason {
			reason = strings.TrimRight(reason[:strings.LastIndex(reason[:longestReason], " ")], " ,;:") + " …"
		}
		fmt.Fprintf(&b, "| %s | %s | %s | %s | %s |\n", n.name, n.value, n.file, strings.ReplaceAll(reason, "|", "\\|"), n.noticed)
	}
	return b.String()
}
