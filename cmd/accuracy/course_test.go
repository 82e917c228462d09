package main

import (
	"crypto/sha256"
	"encoding/hex"
	"encoding/json"
	"flag"
	"fmt"
	"os"
	"regexp"
	"strconv"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"manudrill/core/follow"
	"manudrill/core/guitar"
	"manudrill/core/listen"
	"manudrill/core/simulate"
)

// What learners do in the middle of a take is understood, and nothing untrue is told of it:
// floors are what is wanted of both halves, here of the one that is at hand.
func TestWhatLearnersDoIsUnderstood(t *testing.T) {
	scores, err := playCourses(atHand, 1, false)
	require.NoError(t, err)
	all := &courseTally{}
	for _, s := range scores {
		all.takes, all.true_, all.understood = all.takes+s.takes, all.true_+s.true_, all.understood+s.understood
		for _, w := range s.wrongs {
			t.Log(w)
		}
	}
	assert.Equal(t, len(behaviours)*len(inCourses), all.takes)
	assert.GreaterOrEqual(t, float64(all.true_), 0.98*float64(all.takes))
	assert.GreaterOrEqual(t, float64(all.understood), 0.95*float64(all.takes))
}

// The same by the sound, of some of the takes.
func TestWhatLearnersDoIsHeard(t *testing.T) {
	if testing.Short() {
		t.Skip("takes long")
	}
	all := &courseTally{}
	for i, b := range behaviours {
		for k := range 2 {
			of := inCourses[(i+4*k)%len(inCourses)]
			p, err := playCourse(b, of, atHand, 1)
			require.NoError(t, err)
			a, err := p.judged(true)
			require.NoError(t, err)
			all.add(b.name+", "+of, p, a)
		}
	}
	for _, w := range all.wrongs {
		t.Log(w)
	}
	assert.GreaterOrEqual(t, float64(all.true_), 0.95*float64(all.takes))
	assert.GreaterOrEqual(t, float64(all.understood), 0.9*float64(all.takes))
}

// A drill played at the stand of another is told as another: of 342 pairs of families six are
// not, a short one that fits into a long one or runs on the same frets.
func TestAnotherDrillIsTold(t *testing.T) {
	pairs, taken := 0, 0
	for _, asked := range inCorpus {
		for _, played := range inCorpus {
			if asked == played {
				continue
			}
			a, err := family(asked).Chart(guitar.Standard(), 100)
			require.NoError(t, err)
			b, err := family(played).Chart(guitar.Standard(), 100)
			require.NoError(t, err)
			pairs++
			if p := (simulate.Player{Seed: 3, ClockMs: 4, MotorMs: 4}); !follow.Follow(a, p.Notes(b)).Foreign() {
				taken++
				t.Logf("%s is taken for %s", played, asked)
			}
		}
	}
	assert.Equal(t, 342, pairs)
	assert.LessOrEqual(t, taken, 6)
}

// verdictsFile holds one figure for all that is judged of takes whose notes are known, and
// the version that judged so.
const verdictsFile = "testdata/verdicts.json"

var writeVerdicts = flag.Bool("verdicts", false, "write what is judged into "+verdictsFile)

// Whoever changes what is judged raises the version, so that takes from before can be told
// apart and measured again:
//
//	go test ./cmd/accuracy -run Version -verdicts
func TestWhatIsJudgedIsOfItsVersion(t *testing.T) {
	type verdicts struct {
		Version int    `json:"version"`
		Sum     string `json:"sum"`
	}
	sum := sha256.New()
	for i, b := range behaviours {
		p, err := playCourse(b, inCourses[i%len(inCourses)], atHand, 2)
		require.NoError(t, err)
		a, err := p.judged(false)
		require.NoError(t, err)
		raw, err := json.Marshal(a)
		require.NoError(t, err)
		fmt.Fprintln(sum, shortly(raw))
	}
	now := verdicts{listen.Version, hex.EncodeToString(sum.Sum(nil))[:16]}
	raw, err := os.ReadFile(verdictsFile)
	var was verdicts
	if err == nil {
		require.NoError(t, json.Unmarshal(raw, &was))
	}
	if *writeVerdicts {
		require.True(t, now.Sum == was.Sum || now.Version > was.Version, "what is judged has changed: raise listen.Version first")
		raw, err := json.Marshal(now)
		require.NoError(t, err)
		require.NoError(t, os.WriteFile(verdictsFile, append(raw, '\n'), 0o600))
		return
	}
	require.NoError(t, err)
	assert.Equal(t, was, now, "where it is meant, raise listen.Version and write it down")
}

var numberPattern = regexp.MustCompile(`-?\d+\.\d+(e[-+]?\d+)?`)

// shortly rounds numbers to what any machine agrees on.
func shortly(raw []byte) string {
	return numberPattern.ReplaceAllStringFunc(string(raw), func(s string) string {
		v, err := strconv.ParseFloat(s, 64)
		if err != nil {
			return s
		}
		return strconv.FormatFloat(v, 'g', 4, 64)
	})
}
