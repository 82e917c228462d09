package main

import (
	"fmt"
	"go/ast"
	"go/parser"
	"go/token"
	"path/filepath"
	"slices"
	"strings"
)

// mark begins the lines of a browser test's file that say which sources it drives.
const mark = "//touches: "

// A driven is a file of browser tests, with the folders and files that it drives.
type driven struct {
	tests []string
	paths []string
}

// drives says whether a file, or a folder it is in, is driven.
func (d driven) drives(file string) bool {
	return slices.ContainsFunc(d.paths, func(p string) bool { return file == p || strings.HasPrefix(file, p+"/") })
}

// readDriven reads the map of a folder of browser tests.
func readDriven(folder string) (all []driven, err error) {
	names, err := filepath.Glob(filepath.Join(folder, "*_test.go"))
	if err != nil {
		return nil, err
	}
	for _, name := range names {
		f, err := parser.ParseFile(token.NewFileSet(), name, nil, parser.ParseComments)
		if err != nil {
			return nil, err
		}
		d := driven{tests: testsOf(f)}
		for _, group := range f.Comments {
			for _, c := range group.List {
				if paths, is := strings.CutPrefix(c.Text, mark); is {
					d.paths = append(d.paths, strings.Fields(paths)...)
				}
			}
		}
		if len(d.tests) > 0 && len(d.paths) == 0 {
			return nil, fmt.Errorf("%s drives something: say what, in a line that begins with %q", name, mark)
		}
		d.paths = append(d.paths, filepath.ToSlash(name))
		all = append(all, d)
	}
	return all, nil
}

func testsOf(f *ast.File) (names []string) {
	for _, d := range f.Decls {
		if fn, ok := d.(*ast.FuncDecl); ok && isTest(fn) {
			names = append(names, fn.Name.Name)
		}
	}
	return names
}

func isTest(fn *ast.FuncDecl) bool {
	return fn.Recv == nil && strings.HasPrefix(fn.Name.Name, "Test") && fn.Name.Name != "TestMain"
}

// browser are the browser tests that drive what changed.
func browser(all []driven, files []change) []string {
	var names []string
	for _, d := range all {
		if slices.ContainsFunc(files, func(c change) bool { return d.drives(c.file) }) {
			names = append(names, d.tests...)
		}
	}
	if len(names) == 0 {
		return nil
	}
	return []string{run(names) + " ./e2e"}
}

// run is the argument of go test for some tests alone.
func run(names []string) string {
	slices.Sort(names)
	return "-run ^(" + strings.Join(slices.Compact(names), "|") + ")$"
}
