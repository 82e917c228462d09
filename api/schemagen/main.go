// Command schemagen writes docs/drill.schema.json, the JSON Schema of the drill
// document and of blocks, out of the contract, and its limits for the web interface.
package main

import (
	"encoding/json"
	"log"
	"os"
	"strings"

	"github.com/getkin/kin-openapi/openapi3"
)

func main() {
	defs, err := definitions("openapi.yaml")
	if err != nil {
		log.Fatal(err)
	}
	if err := writeSchema(defs, "../docs/drill.schema.json"); err != nil {
		log.Fatal(err)
	}
	if err := writeLimits(defs, "../web/src/api/limits.gen.ts"); err != nil {
		log.Fatal(err)
	}
}

// definitions are the schemas of the drill document and of blocks, by name.
func definitions(contract string) (map[string]any, error) {
	doc, err := openapi3.NewLoader().LoadFromFile(contract)
	if err != nil {
		return nil, err
	}
	raw, err := doc.MarshalJSON()
	if err != nil {
		return nil, err
	}
	var all struct {
		Components struct{ Schemas map[string]any }
	}
	if err := json.Unmarshal(raw, &all); err != nil {
		return nil, err
	}
	defs := map[string]any{}
	for _, root := range []string{"DrillFile", "Block"} {
		collect(root, all.Components.Schemas, defs)
	}
	return defs, nil
}

func writeSchema(defs map[string]any, schema string) error {
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
		// The contract lets numbers through that are no drill's, so that the program says what
		// is wrong with them; the document's range stands beside.
		if within, ok := n["x-range"].([]any); ok && len(within) == 2 {
			out["minimum"], out["maximum"] = within[0], within[1]
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

// writeLimits writes the limits of each property, so that the interface need not repeat them.
func writeLimits(defs map[string]any, file string) error {
	limits := map[string]map[string]map[string]any{}
	for name, def := range defs {
		properties, _ := def.(map[string]any)["properties"].(map[string]any)
		for property, p := range properties {
			if found := limitsOf(p.(map[string]any)); len(found) > 0 {
				if limits[name] == nil {
					limits[name] = map[string]map[string]any{}
				}
				limits[name][property] = found
			}
		}
	}
	out, err := json.MarshalIndent(limits, "", "  ")
	if err != nil {
		return err
	}
	text := "// Generated from api/openapi.yaml by 'make generate'; do not edit.\n\nexport const limits = " + string(out) + " as const\n"
	return os.WriteFile(file, []byte(text), 0o644)
}

// limitsOf are the limits of a property: of a number, a text or a list.
func limitsOf(property map[string]any) map[string]any {
	found := map[string]any{}
	for from, to := range map[string]string{"minimum": "min", "maximum": "max", "maxLength": "maxLength", "maxItems": "maxItems"} {
		if v, has := property[from]; has {
			found[to] = v
		}
	}
	return found
}
