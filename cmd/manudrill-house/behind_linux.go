package main

import (
	"log/slog"
	"os/exec"
	"runtime"
	"syscall"
)

// niceness of a worker beside the screens: so little of the processor as others
// leave it.
const niceness = 10

// runBehind runs a command at a low priority, apart from the terminal. It ends
// with this program even when this program is killed, for which its thread must
// live as long.
func runBehind(cmd *exec.Cmd) error {
	runtime.LockOSThread()
	defer runtime.UnlockOSThread()
	cmd.SysProcAttr = &syscall.SysProcAttr{Setpgid: true, Pdeathsig: syscall.SIGTERM}
	if err := cmd.Start(); err != nil {
		return err
	}
	if err := syscall.Setpriority(syscall.PRIO_PROCESS, cmd.Process.Pid, niceness); err != nil {
		slog.Warn("the worker runs at the priority of the screens", "error", err)
	}
	return cmd.Wait()
}
