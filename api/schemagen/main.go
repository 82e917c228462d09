// Command schemagen writes docs/drill.schema.json, the JSON Schema of the drill
// document and of blocks, out of the contract.
package main

import (
	"encoding/json"
	"log"
	"os"
	"strings"

	"github.com/getkin/kin-openapi/openapi3"
)

func main() {
	if err := write("openapi.yaml", "../docs/drill.schema.json"); err != nil {
		log.Fatal(err)
	}
}

func write(contract, schema string) error {
	doc, err := openapi3.NewLoader().LoadFromFile(contract)
	if err != nil {
		return err
	}
	raw, err := doc.MarshalJSON()
	if err != nil {
		return err
	}
	var all struct {
		Components struct{ Schemas map[string]any }
	}
	if err := json.Unmarshal(raw, &all); err != nil {
		return err
	}
	defs := map[string]any{}
	for _, root := range []string{"DrillFile", "Block"} {
		collect(root, all.Components.Schemas, defs)
	}
	out, err := json.MarshalIndent(map[string]any{
		"$schema":  "https://json-schema.org/draft/2020-12/schema",
		"$comment": "Generated from api/openapi.yaml by 'make generate'; do not edit.",
		"title":    "Manudrill drill document",
		"$ref":     "#/$defs/DrillFile",
		"$defs":    defs,
	}, "", "  ")
	if err != nil {
		return err
	}
	return os.WriteFile(schema, append(out, '\n'), 0o644)
}

// collect puts a schema and all it refers to into defs, in the words of JSON
// Schema.
func collect(name string, from, defs map[string]any) {
	if _, done := defs[name]; done {
		return
	}
	defs[name] = nil // refers to itself, perhaps
	defs[name] = translate(from[name], func(ref string) { collect(ref, from, defs) })
}

// translate takes out what only the contract's own tools understand, and points
// references to the definitions of the document.
func translate(node any, refers func(name string)) any {
	switch n := node.(type) {
	case map[string]any:
		out := map[string]any{}
		for key, value := range n {
			if strings.HasPrefix(key, "x-") || key == "discriminator" {
				continue
			}
			if ref, ok := value.(string); ok && key == "$ref" {
				name := strings.TrimPrefix(ref, "#/components/schemas/")
				refers(name)
				out[key] = "#/$defs/" + name
				continue
			}
			out[key] = translate(value, refers)
		}
		return out
	case []any:
		out := make([]any, len(n))
		for i, value := range n {
			out[i] = translate(value, refers)
		}
		return out
	}
	return node
}
