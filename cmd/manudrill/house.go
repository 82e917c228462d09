package main

import (
	"errors"
	"fmt"
	"os"
	"os/exec"
	"path/filepath"
	"syscall"

	"github.com/spf13/cobra"

	"manudrill/cmd/house"
)

// houseCommands are those of the program beside this one, which each of them becomes.
func houseCommands() (all []*cobra.Command) {
	for _, cmd := range house.Commands() {
		cmd.DisableFlagParsing = true
		cmd.RunE = func(cmd *cobra.Command, args []string) error {
			return become(house.Program, append([]string{cmd.Name()}, args...))
		}
		all = append(all, cmd)
	}
	return all
}

// become makes another program of this process, which lies in the same folder. It returns
// where that cannot be.
func become(program string, args []string) error {
	self, err := os.Executable()
	if err != nil {
		return err
	}
	if real, err := filepath.EvalSymlinks(self); err == nil {
		self = real
	}
	path, err := exec.LookPath(filepath.Join(filepath.Dir(self), program))
	if errors.Is(err, os.ErrNotExist) {
		return fmt.Errorf("the program %s must lie beside %s; put it there", program, self)
	}
	if err != nil {
		return err
	}
	return syscall.Exec(path, append([]string{path}, args...), os.Environ())
}
