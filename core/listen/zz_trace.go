package listen

import (
	"fmt"
	"os"
)

var zz = os.Getenv("ZZ") != ""

func (l *Listener) zz(at int, f string, a ...any) {
	if zz {
		fmt.Printf("  %.3f "+f+"\n", append([]any{l.seconds(at)}, a...)...)
	}
}
