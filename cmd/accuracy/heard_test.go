package main

import (
	"encoding/json"
	"flag"
	"fmt"
	"hash/fnv"
	"maps"
	"math"
	"os"
	"runtime"
	"slices"
	"strings"
	"sync"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"manudrill/core/drill/library"
	"manudrill/core/evenness"
	"manudrill/core/guitar"
	"manudrill/core/listen"
	"manudrill/core/simulate"
)

// heardFile holds what was heard of a small part of the corpus, note by note. Floors tell
// whether the listener is good enough; this tells that it has changed, and where, before
// a floor is reached: each number a verdict rests on is asked about by it ("make
// numbers"). A change that is meant is written down by
//
//	go test ./cmd/accuracy -run WrittenDown -write
const heardFile = "testdata/heard.json"

var write = flag.Bool("write", false, "write what is heard into "+heardFile)

// hearing is what was heard of a take. The sound says which take it was: another version
// of a codec or of the font makes another.
type hearing struct {
	Sound string   `json:"sound"`
	Notes []string `json:"notes"` // as heard, in the order of their starts
	Told  string   `json:"told"`  // the status of each chart note, then the notes besides
}

func hearingOf(t *take, v verdict) hearing {
	h := hearing{Sound: soundOf(t)}
	a := v.analysis
	for _, n := range v.heard {
		h.Notes = append(h.Notes, written(n))
	}
	for _, n := range a.Notes {
		h.Told += string(n.Status[:1])
	}
	h.Told += fmt.Sprintf(" and %d, %s", len(a.Extras), weakestOf(a))
	return h
}

// soundOf is a short name of the samples, as a file of 16 bits would have them.
func soundOf(t *take) string {
	sum := fnv.New64a()
	for _, x := range t.samples {
		v := uint16(int16(math.Round(x * math.MaxInt16)))
		sum.Write([]byte{byte(v), byte(v >> 8)})
	}
	return fmt.Sprintf("%016x", sum.Sum64())
}

// written is a note in the units in which it is told: ms, cents, dB.
func written(n listen.Note) string {
	s := fmt.Sprintf("%.0f-%.0f ms, %.0f", 1000*n.Onset, 1000*n.End, 100*n.Pitch)
	if n.Or != 0 {
		s += fmt.Sprintf(" or %.0f", 100*n.Or)
	}
	s += fmt.Sprintf(" cents, %.1f dB, bend %.0f", n.LevelDB, n.Bend)
	if n.Again.T > 0 {
		s += fmt.Sprintf(", again at %.0f", 1000*n.Again.T)
	}
	if n.Brief {
		s += ", brief"
	}
	if n.Carry.Known {
		s += fmt.Sprintf(", carry %.0f dB", n.Carry.DB)
	}
	return s
}

func weakestOf(a evenness.Analysis) string {
	told, err := json.Marshal(a.Weakest)
	if err != nil {
		return err.Error()
	}
	return string(told)
}

// smallPart is heard once for all tests: three takes of each condition.
var smallPart = sync.OnceValues(func() (part, error) {
	var mu sync.Mutex
	heard := map[string]hearing{}
	scores, err := heardAll(recipes(atHand, 3), func(t *take, v verdict) error {
		of := hearingOf(t, v)
		mu.Lock()
		defer mu.Unlock()
		heard[t.name] = of
		return nil
	})
	return part{scores, heard}, err
})

// A part of the corpus, heard: its scores by condition, its takes by their names.
type part struct {
	scores map[string]*tally
	heard  map[string]hearing
}

// ownTakes are made by the simulated player on its plucked string: the same sounds wherever
// the tests run, whatever programs are there.
func ownTakes(t *testing.T) (all []*take) {
	t.Helper()
	players := []simulate.Player{
		{},
		{Wrong: 2, Miss: 2, Extra: 2},
		{RingMs: 900},
		{GapPercent: 30},
		{BendCents: 40},
		{SlurRiseMs: 12, SlurDropDB: 6},
		{RoomDB: -12, NoiseDB: -50},
		{ClickDB: -20},
		{TuningCents: 35, LevelSDDB: 3},
		{Repeat: 3, Squeaks: 4},
		{Weak: &simulate.Weak{From: 2, To: 3, LateMs: 30, DropDB: 3}},
	}
	for i, f := range library.Families() {
		c, err := f.Drill.Chart(guitar.Standard(), 90+5*float64(i%5))
		require.NoError(t, err)
		p := players[i%len(players)]
		p.Seed, p.ClockMs, p.MotorMs, p.LevelSDDB = uint64(i+1), 2, 4, max(p.LevelSDDB, 1)
		if p.NoiseDB == 0 {
			p.NoiseDB = -66
		}
		_, x, err := p.Take(c)
		require.NoError(t, err)
		all = append(all, &take{name: "own, " + f.Name, chart: c, rate: simulate.Rate, samples: x})
	}
	return all
}

// All that is heard is held, note by note. Sounds of our own are always the same; of those
// that other programs make there must be some left that are.
func TestAllIsHeardAsItWasWrittenDown(t *testing.T) {
	if testing.Short() {
		t.Skip("takes long")
	}
	if runtime.GOARCH != "amd64" {
		t.Skip("written down where multiplying and adding round twice")
	}
	part, err := smallPart()
	require.NoError(t, err)
	heard := maps.Clone(part.heard)
	for _, own := range ownTakes(t) {
		heard[own.name] = hearingOf(own, own.hear())
	}
	if *write {
		told, err := json.MarshalIndent(heard, "", " ")
		require.NoError(t, err)
		require.NoError(t, os.WriteFile(heardFile, append(told, '\n'), 0o644))
		return
	}
	told, err := os.ReadFile(heardFile)
	require.NoError(t, err)
	var before map[string]hearing
	require.NoError(t, json.Unmarshal(told, &before))
	assert.ElementsMatch(t, slices.Collect(maps.Keys(before)), slices.Collect(maps.Keys(heard)), "each take is written down")
	same, others := 0, 0
	for name, now := range heard {
		was, own := before[name], strings.HasPrefix(name, "own, ")
		switch {
		case was.Sound == now.Sound:
			assert.Equal(t, strings.Join(append(was.Notes, was.Told), "\n"), strings.Join(append(now.Notes, now.Told), "\n"), name)
		case own:
			t.Errorf("%s sounds otherwise than was written down: where the simulated player was changed, write it down anew", name)
		}
		if !own {
			others++
			if was.Sound == now.Sound {
				same++
			}
		}
	}
	t.Logf("%d of %d sounds of other programs are as they were written down", same, others)
	assert.GreaterOrEqual(t, 2*same, others, "most sounds are others than were written down: the programs that make them are of other versions; write them down anew")
}
