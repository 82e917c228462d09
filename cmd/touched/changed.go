package main

import (
	"go/ast"
	"go/parser"
	"go/token"
	"os"
	"path"
	"path/filepath"
	"slices"
	"strings"
)

// tests are the tests of which a line was changed, or of what they call in the tests of
// their package.
func tests(files []change) ([]string, error) {
	byFolder := map[string][]change{}
	for _, f := range files {
		if strings.HasSuffix(f.file, "_test.go") {
			byFolder[path.Dir(f.file)] = append(byFolder[path.Dir(f.file)], f)
		}
	}
	var out []string
	for folder, files := range byFolder {
		names, err := changedIn(folder, files)
		if err != nil {
			return nil, err
		}
		if len(names) > 0 {
			out = append(out, run(names)+" ./"+folder)
		}
	}
	slices.Sort(out)
	return out, nil
}

// changedIn are the names of the tests in a folder that files, of the folder, have changed.
func changedIn(folder string, files []change) ([]string, error) {
	if _, err := os.Stat(folder); os.IsNotExist(err) {
		return nil, nil // it is gone
	}
	names, err := filepath.Glob(filepath.Join(folder, "*_test.go"))
	if err != nil {
		return nil, err
	}
	set := token.NewFileSet()
	uses := map[string]map[string]bool{} // by what is declared, the names within
	hit := map[string]bool{}
	var own []string
	for _, name := range names {
		f, err := parser.ParseFile(set, name, nil, 0)
		if err != nil {
			return nil, err
		}
		own = append(own, testsOf(f)...)
		at := slices.IndexFunc(files, func(c change) bool { return c.file == filepath.ToSlash(name) })
		for _, d := range f.Decls {
			within := namesIn(d)
			for _, declared := range declaredBy(d) {
				if uses[declared] == nil {
					uses[declared] = map[string]bool{}
				}
				for n := range within {
					uses[declared][n] = true
				}
				if at >= 0 && overlaps(files[at].lines, set.Position(d.Pos()).Line, set.Position(d.End()).Line) {
					hit[declared] = true
				}
			}
		}
	}
	for grew := true; grew; {
		grew = false
		for declared, within := range uses {
			for n := range within {
				if hit[n] && !hit[declared] {
					hit[declared], grew = true, true
				}
			}
		}
	}
	return slices.DeleteFunc(own, func(name string) bool { return !hit[name] }), nil
}

func overlaps(lines [][2]int, from, to int) bool {
	return slices.ContainsFunc(lines, func(l [2]int) bool { return l[0] <= to && l[1] >= from })
}

// declaredBy are the names that a declaration gives, of methods without their types.
func declaredBy(d ast.Decl) (names []string) {
	switch d := d.(type) {
	case *ast.FuncDecl:
		names = append(names, d.Name.Name)
	case *ast.GenDecl:
		for _, s := range d.Specs {
			switch s := s.(type) {
			case *ast.TypeSpec:
				names = append(names, s.Name.Name)
			case *ast.ValueSpec:
				for _, n := range s.Names {
					names = append(names, n.Name)
				}
			}
		}
	}
	return names
}

func namesIn(d ast.Decl) map[string]bool {
	names := map[string]bool{}
	ast.Inspect(d, func(n ast.Node) bool {
		if id, ok := n.(*ast.Ident); ok {
			names[id.Name] = true
		}
		return true
	})
	return names
}
