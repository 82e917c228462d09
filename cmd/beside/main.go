// Command beside runs a command beside processes that keep cores busy: what hangs on how
// fast the machine is shows itself there.
//
//	beside -busy 2 go test ./e2e
package main

import (
	"flag"
	"io"
	"log"
	"os"
	"os/exec"
)

func main() {
	log.SetFlags(0)
	busy := flag.Int("busy", 2, "how many processes keep a core busy each")
	one := flag.Bool("one", false, "be one of them, until the standard input ends")
	flag.Parse()
	if *one {
		keepBusy()
		return
	}
	if flag.NArg() == 0 {
		log.Fatal("say what is to be run, as: beside go test ./e2e")
	}
	if err := run(*busy, flag.Args()); err != nil {
		log.Fatal(err)
	}
}

// keepBusy keeps a core busy until what has begun it is gone, however that went.
func keepBusy() {
	go func() {
		for n := uint64(1); n != 0; n++ {
		}
	}()
	_, _ = io.Copy(io.Discard, os.Stdin)
}

func run(busy int, args []string) error {
	self, err := os.Executable()
	if err != nil {
		return err
	}
	for range busy {
		load := exec.Command(self, "-one")
		held, err := load.StdinPipe()
		if err != nil {
			return err
		}
		if err := load.Start(); err != nil {
			return err
		}
		defer func() {
			_ = held.Close() // which ends it
			_ = load.Wait()
		}()
	}
	cmd := exec.Command(args[0], args[1:]...)
	cmd.Stdout, cmd.Stderr = os.Stdout, os.Stderr
	return cmd.Run()
}
