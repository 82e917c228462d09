// Package words puts figures and messages into sentences.
package words

import (
	"fmt"
	"strings"
)

// Counted writes "1 note", "2 notes", "2 passes".
func Counted(n int, one string) string {
	switch {
	case n == 1:
		return "1 " + one
	case strings.HasSuffix(one, "s"):
		return fmt.Sprintf("%d %ses", n, one)
	}
	return fmt.Sprintf("%d %ss", n, one)
}

// Sentence gives a message, which must not be empty, a capital letter.
func Sentence(s string) string { return strings.ToUpper(s[:1]) + s[1:] }
