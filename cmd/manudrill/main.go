// Command manudrill designs fretting-hand drills, listens to takes of them and
// measures every note.
package main

import (
	"errors"
	"fmt"
	"os"

	"github.com/spf13/cobra"
)

func main() {
	if err := program().Execute(); err != nil {
		fmt.Fprintln(os.Stderr, "manudrill:", err)
		os.Exit(1)
	}
}

// program is the command line with all its commands.
func program() *cobra.Command {
	root := &cobra.Command{
		Use:           "manudrill",
		Short:         "Fretting-hand drills, played, heard and measured",
		SilenceErrors: true,
		SilenceUsage:  true,
	}
	root.AddCommand(chartCommand(), exportCommand(), importCommand(), onsetsCommand(), analyzeCommand(), simulateCommand())
	root.AddCommand(houseCommands()...)
	return root
}

// readFile reads a file named on the command line.
func readFile(name string) ([]byte, error) {
	b, err := os.ReadFile(name)
	return b, missing(name, err)
}

// missing says in plain words that a file is not there; other errors stay.
func missing(name string, err error) error {
	if errors.Is(err, os.ErrNotExist) {
		return fmt.Errorf("there is no file %s", name)
	}
	return err
}
