// Package secret makes and checks what people come in by: passwords, personal
// codes and the tokens of links.
package secret

import (
	"context"
	"crypto/rand"
	"crypto/sha256"
	"errors"
	"fmt"
	"strings"
	"unicode/utf8"

	"github.com/alexedwards/argon2id"
)

// cost is what hashing a password takes: the least that the OWASP Password Storage
// Cheat Sheet asks of argon2id (from memory), 19 MiB of memory and two passes.
var cost = &argon2id.Params{Memory: 19 << 10, Iterations: 2, Parallelism: 1, SaltLength: 16, KeyLength: 32}

// atOnce is how many passwords are hashed at once, so that many who sign in take
// no more memory than a few.
const atOnce = 4

// A Keeper hashes passwords and checks them, a few at once.
type Keeper struct {
	places chan struct{}
	none   string // hash of no password
}

// NewKeeper returns a keeper.
func NewKeeper() (*Keeper, error) {
	none, err := argon2id.CreateHash(rand.Text(), cost)
	return &Keeper{make(chan struct{}, atOnce), none}, err
}

// Hash returns what is kept of a password.
func (k *Keeper) Hash(ctx context.Context, password string) (string, error) {
	if err := k.enter(ctx); err != nil {
		return "", err
	}
	defer k.leave()
	return argon2id.CreateHash(password, cost)
}

// Matches reports whether a password is the one of a hash. An empty hash is
// nobody's and takes as long as any other, so that nothing is told by the time.
func (k *Keeper) Matches(ctx context.Context, password, hash string) (bool, error) {
	if err := k.enter(ctx); err != nil {
		return false, err
	}
	defer k.leave()
	if hash == "" {
		_, err := argon2id.ComparePasswordAndHash(password, k.none)
		return false, err
	}
	return argon2id.ComparePasswordAndHash(password, hash)
}

func (k *Keeper) enter(ctx context.Context) error {
	if err := ctx.Err(); err != nil {
		return err
	}
	select {
	case k.places <- struct{}{}:
		return nil
	case <-ctx.Done():
		return ctx.Err()
	}
}

func (k *Keeper) leave() { <-k.places }

// MinPassword is the least length of a password in characters (NIST SP 800-63B
// 5.1.1.2, from memory: at least 8, and no rule on which characters).
const MinPassword = 8

// Weak tells what makes a password easy to guess for who knows the names that go
// with it; nil for one that is none of that.
func Weak(password string, names ...string) error {
	if utf8.RuneCountInString(password) < MinPassword {
		return fmt.Errorf("a password has %d characters at the least; a few words in a row are easy to remember", MinPassword)
	}
	if isRun(password) {
		return errors.New("a row of neighbouring or equal characters is guessed first; take a few words in a row")
	}
	plain := strings.ToLower(password)
	for _, n := range names {
		if n = strings.ToLower(n); len(n) >= 3 && strings.Contains(plain, n) && utf8.RuneCountInString(plain)-utf8.RuneCountInString(n) < MinPassword/2 {
			return errors.New("it is hardly more than a name that others know; take a few words in a row")
		}
	}
	for _, common := range []string{"password", "passw0rd", "qwertyui", "letmein", "guitar"} {
		if strings.Contains(plain, common) && len(plain)-len(common) < MinPassword/2 {
			return errors.New("it is one of those that are guessed first; take a few words in a row")
		}
	}
	return nil
}

// isRun reports a text whose characters all go by one step: aaaaaaaa, 12345678.
func isRun(text string) bool {
	runes := []rune(text)
	step := runes[1] - runes[0]
	if step < -1 || step > 1 {
		return false
	}
	for i := 2; i < len(runes); i++ {
		if runes[i]-runes[i-1] != step {
			return false
		}
	}
	return true
}

// Token returns a text that nobody guesses, for a link, and what is kept of it.
func Token() (text string, kept []byte) {
	text = rand.Text()
	return text, Kept(text)
}

// Kept is what is kept of a token: who reads it in the database cannot use it.
func Kept(token string) []byte {
	sum := sha256.Sum256([]byte(token))
	return sum[:]
}

// A Code is what somebody comes in by who has no password: short enough to be
// typed from a card, in two parts. The first finds whose it is; the second, 35
// bits, is checked like a password.
type Code struct{ Finder, Rest string }

// The characters of codes: those of Crockford's Base 32, which has none that look
// alike, and their groups.
const (
	alphabet = "0123456789ABCDEFGHJKMNPQRSTVWXYZ"
	finder   = 5
	length   = 12
	group    = 4
)

// NewCode returns a code that nobody guesses.
func NewCode() Code {
	raw := make([]byte, length)
	_, _ = rand.Read(raw) // never fails
	for i, b := range raw {
		raw[i] = alphabet[b%32]
	}
	return Code{string(raw[:finder]), string(raw[finder:])}
}

// String writes a code in groups, as it is printed.
func (c Code) String() string {
	text := c.Finder + c.Rest
	var groups []string
	for i := 0; i < len(text); i += group {
		groups = append(groups, text[i:min(i+group, len(text))])
	}
	return strings.Join(groups, "-")
}

// alike are characters that are taken for others.
var alike = strings.NewReplacer("O", "0", "I", "1", "L", "1")

// ParseCode reads a code as people type it, and reports whether it can be one.
func ParseCode(text string) (Code, bool) {
	var b strings.Builder
	for _, r := range alike.Replace(strings.ToUpper(text)) {
		switch {
		case strings.ContainsRune(alphabet, r):
			b.WriteRune(r)
		case r != '-' && r != ' ' && r != '–':
			return Code{}, false
		}
	}
	if b.Len() != length {
		return Code{}, false
	}
	return Code{b.String()[:finder], b.String()[finder:]}, true
}
