package drillfile_test

import (
	"encoding/json"
	"os"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"manudrill/core/guitar"
	"manudrill/formats/drillfile"
)

// The documented example is a drill that can be played.
func TestTheDocumentedExample(t *testing.T) {
	raw, err := os.ReadFile("../../docs/example.drill.json")
	require.NoError(t, err)
	file, err := drillfile.Read(raw)
	require.NoError(t, err)
	assert.Empty(t, file.Check(guitar.Standard()))
	chart, err := file.Drill.Chart(guitar.Standard(), file.Ladder.StartBPM)
	require.NoError(t, err)
	assert.Len(t, chart.Notes, 30, "the string it begins on is not played twice where a pass begins anew")

	again, err := json.Marshal(file)
	require.NoError(t, err)
	assert.JSONEq(t, string(raw), string(again))
}

func TestDocumentsThatCannotBeRead(t *testing.T) {
	for name, document := range map[string]string{
		"no JSON": "{", "another document": `{"notes": []}`, "no pattern": `{"drill": {}, "ladder": {}}`,
		"a list": `[]`, "a misspelt field": `{"drill": {"pattern": {"kind": "fingerPerFret"}}, "ladder": {"speed": 1}}`,
	} {
		_, err := drillfile.Read([]byte(document))
		assert.Error(t, err, name)
	}
}

// A mark at the start is no matter; anything behind the document is.
func TestWhatStandsAroundADocument(t *testing.T) {
	raw, err := os.ReadFile("../../docs/example.drill.json")
	require.NoError(t, err)
	_, err = drillfile.Read(append([]byte("\ufeff"), append(raw, "\n \n"...)...))
	require.NoError(t, err)
	for _, behind := range []string{"{}", "x", "]"} {
		_, err = drillfile.Read(append(raw[:len(raw):len(raw)], behind...))
		assert.ErrorContains(t, err, "something else follows", behind)
	}
}

func TestFaultsOfDrillAndLadderComeTogether(t *testing.T) {
	file, err := drillfile.Read([]byte(`{"drill": {"name": "x", "pattern": {"kind": "fingerPerFret", "orders": []}}, "ladder": {}}`))
	require.NoError(t, err)
	fields := map[string]bool{}
	for _, f := range file.Check(guitar.Standard()) {
		fields[f.Field] = true
	}
	assert.True(t, fields["pattern"] && fields["ladder.startBpm"], "%v", fields)
}
