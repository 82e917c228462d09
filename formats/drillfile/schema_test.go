package drillfile_test

import (
	"bytes"
	"encoding/json"
	"regexp"
	"slices"
	"strconv"
	"testing"

	"github.com/santhosh-tekuri/jsonschema/v6"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"manudrill/core/drill"
	"manudrill/core/drill/library"
	"manudrill/core/guitar"
	"manudrill/core/tempo"
	"manudrill/formats/drillfile"
)

func schemaAt(t require.TestingT, ref string) *jsonschema.Schema {
	schema, err := jsonschema.NewCompiler().Compile("../../docs/drill.schema.json" + ref)
	require.NoError(t, err)
	return schema
}

func valid(t require.TestingT, schema *jsonschema.Schema, document any) error {
	raw, err := json.Marshal(document)
	require.NoError(t, err)
	value, err := jsonschema.UnmarshalJSON(bytes.NewReader(raw))
	require.NoError(t, err)
	return schema.Validate(value)
}

// The published schema is read by an independent validator of JSON Schema
// (draft 2020-12), and fits the drills of every family.
func TestDrillDocumentsKeepToTheirSchema(t *testing.T) {
	file := schemaAt(t, "")
	block := drillfile.Block{Name: "all families"}
	for _, f := range library.Families() {
		doc := drillfile.File{Drill: f.Drill, Ladder: tempo.Usual()}
		assert.NoError(t, valid(t, file, doc), f.ID)
		block.Items = append(block.Items, drillfile.BlockItem{File: doc, Seconds: 15})
	}
	assert.NoError(t, valid(t, schemaAt(t, "#/$defs/Block"), block))
	assert.Error(t, valid(t, file, map[string]any{"drill": map[string]any{"name": "x"}, "ladder": tempo.Usual()}))
	assert.Error(t, valid(t, file, map[string]any{"drill": library.Families()[0].Drill, "ladder": tempo.Usual(), "speed": 3}))
}

// unread reports whether the program does not look at a number, since another rule is chosen.
func unread(d drill.Drill, name string) bool {
	return slices.Contains([]string{"stepPercent", "doublings", "stepBpm", "length", "advance"}, name) ||
		name == "strings" && d.Path.Spread == drill.OwnGroups
}

// The ranges of the schema are those that the program enforces: whatever number of a document
// is changed, what the program accepts the schema does, and numbers that are none of a drill
// are refused by both.
func TestTheSchemaHasTheProgramsRanges(t *testing.T) {
	schema := schemaAt(t, "")
	for _, f := range library.Families() {
		raw, err := json.Marshal(drillfile.File{Drill: f.Drill, Ladder: tempo.Usual()})
		require.NoError(t, err)
		for _, at := range numbers(raw) {
			for _, v := range []int{-500, -41, -1, 0, 1, 5, 10, 20, 37, 65, 101, 241, 400, 999} {
				changed, name := withNumber(raw, at, v)
				read, err := drillfile.Read(changed)
				accepted := err == nil && len(read.Check(guitar.Standard())) == 0
				var doc any
				require.NoError(t, json.Unmarshal(changed, &doc))
				fits := schema.Validate(doc) == nil
				if accepted && !unread(f.Drill, name) {
					assert.True(t, fits, "%s: the program takes %d for %s, the schema does not", f.ID, v, name)
				}
				if v == -500 || v == 999 {
					assert.False(t, fits, "%s: the schema takes %d for %s", f.ID, v, name)
				}
			}
		}
	}
}

var (
	number = regexp.MustCompile(`[:\[,](-?\d+(?:\.\d+)?)[,\]}]`)
	key    = regexp.MustCompile(`"(\w+)":`)
)

// numbers are where those of a document stand.
func numbers(raw []byte) (at [][]int) {
	for from := 0; ; {
		m := number.FindSubmatchIndex(raw[from:])
		if m == nil {
			return at
		}
		at = append(at, []int{from + m[2], from + m[3]})
		from += m[3] // what ends one may begin the next
	}
}

// withNumber is a document with another number in a place, and what that, or the list it is
// in, is called.
func withNumber(raw []byte, at []int, v int) (changed []byte, name string) {
	names := key.FindAllSubmatch(raw[:at[0]], -1)
	return slices.Concat(raw[:at[0]], []byte(strconv.Itoa(v)), raw[at[1]:]), string(names[len(names)-1][1])
}
