module manudrill

go 1.26

require (
	github.com/mewkiz/flac v1.0.14
	github.com/spf13/cobra v1.10.2
	github.com/stretchr/testify v1.12.1
	gonum.org/v1/gonum v0.17.0
)

require (
	github.com/icza/bitio v1.1.0 // indirect
	github.com/inconshreveable/mousetrap v1.1.0 // indirect
	github.com/mewkiz/pkg v0.0.0-20250417130911-3f050ff8c56d // indirect
	github.com/mewpkg/term v0.0.0-20241026122259-37a80af23985 // indirect
	github.com/spf13/pflag v1.0.9 // indirect
	go.yaml.in/yaml/v3 v3.0.5 // indirect
)
