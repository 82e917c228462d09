package main

import (
	"io/fs"
	"os"
	"path/filepath"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// The form of git diff --unified=0 (git-diff(1), "Generating patch text with -p").
const diff = `diff --git a/core/tempo/gate.go b/core/tempo/gate.go
index 1..2 100644
--- a/core/tempo/gate.go
+++ b/core/tempo/gate.go
@@ -3 +3 @@ package tempo
-old
+new
@@ -10,2 +11,3 @@ func f() {
-a
-b
+c
+d
+e
diff --git a/web/src/App.vue b/web/src/App.vue
deleted file mode 100644
--- a/web/src/App.vue
+++ /dev/null
@@ -1,9 +0,0 @@
-gone
`

func TestADiffIsRead(t *testing.T) {
	files, err := read(diff)
	require.NoError(t, err)
	assert.Equal(t, []change{{"core/tempo/gate.go", [][2]int{{3, 3}, {11, 13}}}, {"web/src/App.vue", [][2]int{{0, 0}}}}, files)
}

// What go list -test -f has written, shortened.
const listed = `
manudrill/core/tempo math
manudrill/core/tempo.test math manudrill/core/tempo manudrill/core/tempo [manudrill/core/tempo.test]
manudrill/store math manudrill/core/tempo
manudrill/store.test math manudrill/core/tempo manudrill/store
manudrill/e2e.test manudrill/store
manudrill/web embed
manudrill/cmd/house manudrill/store manudrill/web
manudrill/cmd/house.test manudrill/store manudrill/web
`

func TestPackagesThatDependOnAFile(t *testing.T) {
	for file, want := range map[string][]string{
		"core/tempo/gate.go":           {"./core/tempo", "./store"},
		"store/migrations/0001_one.up": {"./cmd/house", "./store"},
		"web/files.go":                 {"./cmd/house"},
		"web/src/App.vue":              nil,
		"README.md":                    nil,
	} {
		assert.Equal(t, want, dependent(listed, []change{{file: file}}), file)
	}
}

func TestTestsOfWhichSomethingWasChanged(t *testing.T) {
	t.Chdir(t.TempDir())
	require.NoError(t, os.Mkdir("p", 0o755))
	require.NoError(t, os.WriteFile("p/a_test.go", []byte(`package p

func TestByItself(t *testing.T) {
	f()
}

func TestByAnother(t *testing.T) { g() }

func TestOther(t *testing.T) {}
`), 0o644))
	require.NoError(t, os.WriteFile("p/b_test.go", []byte("package p\n\nfunc f() {}\n\nfunc g() { f() }\n"), 0o644))
	at := func(file string, line int) []string {
		names, err := tests([]change{{file, [][2]int{{line, line}}}})
		require.NoError(t, err)
		return names
	}
	assert.Equal(t, []string{"-run ^(TestByItself)$ ./p"}, at("p/a_test.go", 4))
	assert.Equal(t, []string{"-run ^(TestByAnother)$ ./p"}, at("p/b_test.go", 5))
	assert.Equal(t, []string{"-run ^(TestByAnother|TestByItself)$ ./p"}, at("p/b_test.go", 3))
	assert.Empty(t, at("p/a_test.go", 6))
	assert.Empty(t, at("gone/a_test.go", 1))
}

// The map of the browser tests names what there is, and no source of the interface is left
// out.
func TestTheMapOfTheBrowserTests(t *testing.T) {
	t.Chdir("../..")
	all, err := readDriven("e2e")
	require.NoError(t, err)
	for _, d := range all {
		for _, p := range d.paths {
			_, err := os.Stat(p)
			assert.NoError(t, err)
		}
	}
	n := 0
	require.NoError(t, fs.WalkDir(os.DirFS("."), "web/src", func(name string, d fs.DirEntry, err error) error {
		if err != nil || d.IsDir() || strings.HasSuffix(name, ".test.ts") {
			return err
		}
		n++
		assert.NotEmpty(t, browser(all, []change{{file: filepath.ToSlash(name)}}), "%s: say in which file of browser tests it is driven", name)
		return nil
	}))
	assert.Greater(t, n, 100, "the sources must have been found")
	assert.Equal(t, []string{"-run ^(TestAMondayByKeyboard|TestAMondayByMouse)$ ./e2e"}, browser(all, []change{{file: "web/src/goto.ts"}}))
	assert.Empty(t, browser(all, []change{{file: "README.md"}}))
}
