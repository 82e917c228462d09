package core_test

import (
	"go/ast"
	"go/parser"
	"go/token"
	"go/types"
	"path"
	"path/filepath"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// Core and formats begin nothing beside them and keep nothing between two calls, so that
// many may compute at once, and the race detector has nothing to look for in them: they are
// compiled without it (see RACE in the Makefile).
func TestComputationsShareNothing(t *testing.T) {
	packages := map[string][]*ast.File{}
	eachFile(t, func(file string, parsed *ast.File) {
		if of := path.Dir(filepath.ToSlash(file)); strings.HasPrefix(of, "core/") || strings.HasPrefix(of, "formats/") {
			packages[of] = append(packages[of], parsed)
		}
	})
	assert.Greater(t, len(packages), 20, "the test must have found the sources")
	for of, files := range packages {
		assert.Empty(t, sharing(sources, files), of)
	}
}

// sharing is what is begun or kept by the files of a package.
func sharing(files *token.FileSet, parsed []*ast.File) (found []string) {
	uses := map[*ast.Ident]types.Object{}
	// Imports are not followed, which leaves errors, but no doubt about the package's own.
	own, _ := (&types.Config{Error: func(error) {}}).Check("own", files, parsed, &types.Info{Uses: uses})
	change := func(of ast.Expr) {
		if v, ok := uses[root(of)].(*types.Var); ok && v.Parent() == own.Scope() {
			found = append(found, "changes "+v.Name())
		}
	}
	for _, f := range parsed {
		for _, i := range f.Imports {
			if strings.HasPrefix(i.Path.Value, `"sync`) {
				found = append(found, "imports "+i.Path.Value)
			}
		}
		ast.Inspect(f, func(n ast.Node) bool {
			switch n := n.(type) {
			case *ast.GoStmt:
				found = append(found, "begins something beside it")
			case *ast.IncDecStmt:
				change(n.X)
			case *ast.AssignStmt:
				for _, to := range n.Lhs {
					change(to)
				}
			case *ast.UnaryExpr:
				if n.Op == token.AND {
					change(n.X) // whoever has its address may
				}
			}
			return true
		})
	}
	return found
}

// root is the variable of which an expression is a part, or nil.
func root(of ast.Expr) *ast.Ident {
	for {
		switch e := of.(type) {
		case *ast.Ident:
			return e
		case *ast.SelectorExpr:
			of = e.X
		case *ast.IndexExpr:
			of = e.X
		case *ast.StarExpr:
			of = e.X
		case *ast.ParenExpr:
			of = e.X
		default:
			return nil
		}
	}
}

// The check itself finds what it looks for.
func TestWhatIsSharedIsFound(t *testing.T) {
	for name, c := range map[string]struct {
		source string
		n      int
	}{
		"a table that is read":     {`var kept = []int{1}; func f() int { return kept[0] }`, 0},
		"a table that is written":  {`var kept = map[int]int{}; func f() { kept[1] = 2 }`, 1},
		"a field that is counted":  {`var kept struct{ n int }; func f() { kept.n++ }`, 1},
		"an address given away":    {`var kept int; func f() *int { return &kept }`, 1},
		"one's own of that name":   {`var kept int; func f() int { kept := 1; kept++; return kept }`, 0},
		"a parameter of that name": {`var kept int; func f(kept int) int { kept++; return kept }`, 0},
		"something beside it":      {`func f() { go f() }`, 1},
		"a lock":                   {`import "sync"; func f(by *sync.Mutex) {}`, 1},
	} {
		files := token.NewFileSet()
		parsed, err := parser.ParseFile(files, "x.go", "package x; "+c.source, 0)
		require.NoError(t, err, name)
		assert.Len(t, sharing(files, []*ast.File{parsed}), c.n, name)
	}
}
