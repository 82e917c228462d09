package drillfile_test

import (
	"bytes"
	"encoding/json"
	"testing"

	"github.com/santhosh-tekuri/jsonschema/v6"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"manudrill/core/drill"
	"manudrill/core/tempo"
	"manudrill/formats/drillfile"
)

func valid(t *testing.T, ref string, document any) error {
	t.Helper()
	schema, err := jsonschema.NewCompiler().Compile("../../docs/drill.schema.json" + ref)
	require.NoError(t, err)
	raw, err := json.Marshal(document)
	require.NoError(t, err)
	value, err := jsonschema.UnmarshalJSON(bytes.NewReader(raw))
	require.NoError(t, err)
	return schema.Validate(value)
}

// The published schema is read by an independent validator of JSON Schema
// (draft 2020-12), and fits the drills of every family.
func TestDrillDocumentsKeepToTheirSchema(t *testing.T) {
	block := drillfile.Block{Name: "all families"}
	for _, f := range drill.Families() {
		file := drillfile.File{Drill: f.Drill, Ladder: tempo.Usual()}
		assert.NoError(t, valid(t, "", file), f.ID)
		block.Items = append(block.Items, drillfile.BlockItem{File: file, Seconds: 15})
	}
	assert.NoError(t, valid(t, "#/$defs/Block", block))
	assert.Error(t, valid(t, "", map[string]any{"drill": map[string]any{"name": "x"}, "ladder": tempo.Usual()}))
	assert.Error(t, valid(t, "", map[string]any{"drill": drill.Families()[0].Drill, "ladder": tempo.Usual(), "speed": 3}))
}
