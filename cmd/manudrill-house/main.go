// Command manudrill-house keeps a house: it serves the application, measures what is
// handed in, and looks after the data. People call it by way of manudrill.
package main

import (
	"fmt"
	"os"

	"github.com/spf13/cobra"

	"manudrill/cmd/house"
)

func main() {
	if err := program().Execute(); err != nil {
		fmt.Fprintln(os.Stderr, "manudrill:", err)
		os.Exit(1)
	}
}

// program is the command line with all its commands.
func program() *cobra.Command {
	root := &cobra.Command{Use: house.Program, Short: "Keeps a house of studios", SilenceErrors: true, SilenceUsage: true}
	for name, cmd := range house.Commands() {
		does[name](cmd)
		root.AddCommand(cmd)
	}
	return root
}

// does gives each command what it is told and does.
var does = map[string]func(*cobra.Command){
	"serve": serving(false), "demo": serving(true), "work": working, "studio": beginningStudio, "owner": lettingOwnerIn,
	"backup": backingUp, "restore": restoring, "rollback": rollingBack,
}
