package core_test

import (
	"go/ast"
	"go/parser"
	"go/token"
	"io/fs"
	"path"
	"path/filepath"
	"slices"
	"strconv"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// order is the one in which packages of the core may import each other: each
// only those before it.
var order = []string{
	"words", "bounds", "stats", "guitar", "setup",
	"drill/chart", "drill/fingering", "drill", "drill/review", "drill/library", "drill/score",
	"tempo", "listen/dsp", "listen", "follow", "evenness", "advice", "progress", "practice", "plan", "simulate",
}

// mayImport is what the parts outside the core may import of the project.
var mayImport = map[string][]string{
	"core":      {"core"},
	"device":    {"core"},
	"formats":   {"core"},
	"store":     {"core", "formats"},
	"api":       {"core", "formats"},
	"server":    {"core", "formats", "store", "api"},
	"pgcluster": {},
	"web":       {},

	// Whoever measures a recording starts nothing of a server.
	"cmd/manudrill": {"core", "formats"},
}

// programs are what puts the parts together: they may import any of them.
var programs = []string{"cmd", "demo", "e2e", "drilltest", "memtest", "storetest"}

// pure are the packages outside the project that the core may use.
var pure = []string{
	"bytes", "cmp", "encoding/json", "errors", "fmt", "iter", "maps", "math", "math/bits", "math/cmplx", "math/rand/v2", "slices", "sort", "strconv", "strings", "time", "unicode",
	"gonum.org/v1/gonum/dsp/window", "gonum.org/v1/gonum/floats", "gonum.org/v1/gonum/mathext",
}

func TestImportsPointOneWay(t *testing.T) {
	seen := 0
	eachFile(t, func(file string, parsed *ast.File) {
		from := strings.Split(filepath.ToSlash(file), "/")
		allowed, ruled := mayImport[path.Dir(filepath.ToSlash(file))]
		if !ruled {
			allowed, ruled = mayImport[from[0]]
		}
		if !ruled {
			assert.Contains(t, programs, from[0], "%s: say what %s may import", file, from[0])
			return
		}
		if from[0] == "core" && len(from) > 2 {
			assert.Contains(t, order, packageOf(from), "%s: say which packages of the core come before it", file)
		}
		for _, spec := range parsed.Imports {
			imported, err := strconv.Unquote(spec.Path.Value)
			require.NoError(t, err)
			inside, own := strings.CutPrefix(imported, "manudrill/")
			if own {
				to := strings.Split(inside, "/")
				assert.True(t, to[0] == from[0] || slices.Contains(allowed, to[0]), "%s imports %s", file, imported)
				if from[0] == "core" && len(from) > 2 {
					before := strings.Join(to[1:], "/")
					assert.Contains(t, order, before, "%s imports %s", file, imported)
					assert.Less(t, slices.Index(order, before), slices.Index(order, packageOf(from)), "%s imports %s", file, imported)
				}
			} else if from[0] == "core" {
				assert.Contains(t, pure, imported, "%s", file)
			}
			seen++
		}
	})
	assert.Greater(t, seen, 50, "the test must have found the sources")
}

// packageOf is the package of a file of the core, as order has it.
func packageOf(file []string) string { return strings.Join(file[1:len(file)-1], "/") }

// What the core may use of packages that also know the time, or chance without a seed.
var (
	noClock = []string{
		"Time", "Duration", "Month", "Weekday", "Location", "UTC", "Date", "Parse", "ParseDuration", "Unix", "UnixMilli",
		"Nanosecond", "Microsecond", "Millisecond", "Second", "Minute", "Hour", "Monday", "Tuesday", "Wednesday", "Thursday", "Friday", "Saturday", "Sunday",
		"January", "RFC3339", "RFC3339Nano", "DateOnly", "DateTime",
	}
	seeded = []string{"Rand", "Source", "PCG", "ChaCha8", "Zipf", "New", "NewPCG", "NewChaCha8", "NewZipf"}
)

// The core has no clock and no chance that is not given to it, by whatever name the
// packages that have them are called.
func TestTheCoreHasNoClockAndNoChance(t *testing.T) {
	eachFile(t, func(file string, parsed *ast.File) {
		if !strings.HasPrefix(filepath.ToSlash(file), "core/") {
			return
		}
		for at, name := range hidden(t, file, parsed) {
			t.Errorf("%s uses %s, at %d", file, name, at)
		}
	})
}

// hidden are the uses of clocks and of chance without a seed in a file, by their places.
func hidden(t *testing.T, file string, parsed *ast.File) map[token.Pos]string {
	t.Helper()
	allowed := map[string][]string{"time": noClock, "math/rand/v2": seeded}
	called := map[string]string{}
	found := map[token.Pos]string{}
	for _, spec := range parsed.Imports {
		imported, err := strconv.Unquote(spec.Path.Value)
		require.NoError(t, err)
		if _, is := allowed[imported]; !is {
			continue
		}
		name := map[string]string{"time": "time", "math/rand/v2": "rand"}[imported]
		if spec.Name != nil {
			name = spec.Name.Name
		}
		if name == "." {
			found[spec.Pos()] = "the names of " + imported + " without saying so"
		}
		called[name] = imported
	}
	ast.Inspect(parsed, func(n ast.Node) bool {
		if sel, ok := n.(*ast.SelectorExpr); ok {
			if id, ok := sel.X.(*ast.Ident); ok && called[id.Name] != "" && !slices.Contains(allowed[called[id.Name]], sel.Sel.Name) {
				found[sel.Pos()] = called[id.Name] + "." + sel.Sel.Name
			}
		}
		return true
	})
	return found
}

// The check itself finds what it looks for.
func TestHiddenClocksAreFound(t *testing.T) {
	for name, c := range map[string]struct {
		source string
		n      int
	}{
		"a clock":               {`import "time"; var x = time.Now()`, 1},
		"by another name":       {`import clock "time"; var x = clock.Until(clock.Time{})`, 1},
		"without a name":        {`import . "time"; var x = Now()`, 1},
		"chance without a seed": {`import "math/rand/v2"; var x = rand.IntN(3)`, 1},
		"chance with one":       {`import "math/rand/v2"; var x = rand.New(rand.NewPCG(1, 2)).IntN(3)`, 0},
		"days":                  {`import "time"; var x = time.Date(2026, time.January, 1, 0, 0, 0, 0, time.UTC).Add(time.Hour)`, 0},
	} {
		parsed, err := parser.ParseFile(token.NewFileSet(), "x.go", "package x; "+c.source, 0)
		require.NoError(t, err, name)
		assert.Len(t, hidden(t, name, parsed), c.n, name)
	}
}

// sources are the files that eachFile has parsed.
var sources = token.NewFileSet()

// eachFile parses every Go source of the project that is no test.
func eachFile(t *testing.T, look func(file string, parsed *ast.File)) {
	t.Helper()
	root := ".."
	err := filepath.WalkDir(root, func(name string, d fs.DirEntry, err error) error {
		if err != nil {
			return err
		}
		if d.IsDir() && (d.Name() == "node_modules" || path.Base(name) == ".git") {
			return filepath.SkipDir
		}
		if d.IsDir() || !strings.HasSuffix(name, ".go") || strings.HasSuffix(name, "_test.go") {
			return nil
		}
		parsed, err := parser.ParseFile(sources, name, nil, 0)
		if err != nil {
			return err
		}
		rel, err := filepath.Rel(root, name)
		if err == nil {
			look(rel, parsed)
		}
		return err
	})
	require.NoError(t, err)
}
