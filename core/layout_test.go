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
var order = []string{"bounds", "guitar", "drill", "tempo", "listen", "compare", "evenness", "advice", "progress", "practice", "plan", "simulate"}

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
}

// pure are the packages outside the project that the core may use.
var pure = []string{
	"bytes", "cmp", "encoding/json", "errors", "fmt", "iter", "maps", "math", "math/bits", "math/cmplx", "math/rand/v2", "slices", "sort", "strconv", "strings", "time", "unicode",
	"gonum.org/v1/gonum/dsp/window", "gonum.org/v1/gonum/stat", "gonum.org/v1/gonum/stat/distuv",
}

func TestImportsPointOneWay(t *testing.T) {
	seen := 0
	eachFile(t, func(file string, parsed *ast.File) {
		from := strings.Split(filepath.ToSlash(file), "/")
		allowed, ruled := mayImport[from[0]]
		if !ruled {
			return
		}
		for _, spec := range parsed.Imports {
			imported, err := strconv.Unquote(spec.Path.Value)
			require.NoError(t, err)
			inside, own := strings.CutPrefix(imported, "manudrill/")
			if own {
				to := strings.Split(inside, "/")
				assert.True(t, to[0] == from[0] || slices.Contains(allowed, to[0]), "%s imports %s", file, imported)
				room := len(from) > 2 && to[0] == "core" && to[1] == from[1] // below its own package
				if room {
					assert.Greater(t, len(to), len(from)-1, "%s imports %s: a room knows nothing of what is above it", file, imported)
				}
				if from[0] == "core" && len(from) > 2 && !room {
					assert.Less(t, slices.Index(order, to[1]), slices.Index(order, from[1]), "%s imports %s", file, imported)
				}
			} else if from[0] == "core" {
				assert.Contains(t, pure, imported, "%s", file)
			}
			seen++
		}
	})
	assert.Greater(t, seen, 50, "the test must have found the sources")
}

func TestTheCoreHasNoClock(t *testing.T) {
	eachFile(t, func(file string, parsed *ast.File) {
		if !strings.HasPrefix(filepath.ToSlash(file), "core/") {
			return
		}
		ast.Inspect(parsed, func(n ast.Node) bool {
			if sel, ok := n.(*ast.SelectorExpr); ok {
				if id, ok := sel.X.(*ast.Ident); ok && id.Name == "time" {
					assert.NotContains(t, []string{"Now", "Since", "Sleep", "After", "NewTimer"}, sel.Sel.Name, file)
				}
			}
			return true
		})
	})
}

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
		parsed, err := parser.ParseFile(token.NewFileSet(), name, nil, 0)
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
