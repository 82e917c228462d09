// Package api is the one contract between the web interface and the server. Its
// types and server interface are generated from openapi.yaml.
package api

import _ "embed"

//go:generate go tool oapi-codegen --config oapi-codegen.yaml openapi.yaml
//go:generate go run ./schemagen

// Spec is the contract, OpenAPI 3.0 in YAML.
//
//go:embed openapi.yaml
var Spec []byte
