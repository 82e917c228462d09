//go:build !linux

package main

import "os/exec"

// runBehind runs a command. How to do so at a low priority differs from system to
// system.
func runBehind(cmd *exec.Cmd) error { return cmd.Run() }
