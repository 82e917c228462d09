package stand_test

import (
	"encoding/binary"
	"encoding/json"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"manudrill/core/drill"
	"manudrill/core/evenness"
	"manudrill/core/follow"
	"manudrill/core/guitar"
	"manudrill/core/listen"
	"manudrill/core/practice"
	"manudrill/core/tempo"
	"manudrill/device/stand"
)

func question(t *testing.T, q any) []byte {
	t.Helper()
	raw, err := json.Marshal(q)
	require.NoError(t, err)
	return raw
}

// A rung is written out as the studio writes it, also where the notes a beat change and
// where a stay of so many seconds has more notes the faster it is.
func TestTheNextRung(t *testing.T) {
	trill := drill.New("trill", drill.Trill{Fingers: []int{1, 3}})
	trill.Path.Strings, trill.Path.Stay, trill.Attacks.Rule = []int{3}, drill.Stay{Count: 10, Unit: drill.Seconds}, drill.Legato
	for _, rung := range []tempo.Rung{{BPM: 60, NotesPerBeat: 2}, {BPM: 96, NotesPerBeat: 4}} {
		laid, err := stand.Lay(question(t, stand.Rung{Drill: trill, Guitar: guitar.Standard(), Rung: rung}))
		require.NoError(t, err)
		chart, err := trill.Divided(rung.NotesPerBeat).Chart(guitar.Standard(), rung.BPM)
		require.NoError(t, err)
		assert.Equal(t, chart, laid.Chart)
		assert.InDelta(t, 10*rung.BPM/60, laid.BeatsPerPass, 1, "ten seconds of it")
	}
	_, err := stand.Lay([]byte("{"))
	assert.Error(t, err)
	_, err = stand.Lay(question(t, stand.Rung{Drill: trill, Guitar: guitar.Guitar{}, Rung: tempo.Rung{BPM: 60, NotesPerBeat: 2}}))
	assert.Error(t, err)
}

// What is heard is the drill: the listener hears its notes in it, at the tempo that was
// asked for.
func TestADrillIsHeardAsItShouldSound(t *testing.T) {
	d := drill.New("slurs", drill.SlurCombinations{Combinations: [][]int{{1, 3}}, Slur: drill.HammerOns})
	d.Path.Strings = []int{4, 3, 2}
	rung := stand.Rung{Drill: d, Guitar: guitar.Standard(), Rung: tempo.Rung{BPM: 100, NotesPerBeat: 2}}
	heard, err := stand.Hear(question(t, stand.Model{Rung: rung}))
	require.NoError(t, err)
	var samples []float64
	for i := 0; i+2 <= len(heard.Samples); i += 2 {
		samples = append(samples, float64(int16(binary.LittleEndian.Uint16(heard.Samples[i:])))/32768)
	}
	chart, err := d.Chart(guitar.Standard(), 100)
	require.NoError(t, err)
	chart.Passes = 1
	a := evenness.Judge(follow.Follow(chart, listen.Listen(float64(heard.Rate), samples)))
	assert.Equal(t, len(chart.Notes), a.Counts.Played)
	assert.InDelta(t, 100, a.Tempo.BPM, 1)

	d.Path.Stay, d.Rhythm.Passes = drill.Stay{Count: 240, Unit: drill.Seconds}, 1
	d.Path.Strings = []int{3}
	rung.Drill = d
	heard, err = stand.Hear(question(t, stand.Model{Rung: rung, Click: true}))
	require.NoError(t, err)
	assert.Less(t, float64(len(heard.Samples))/2/float64(heard.Rate), 50.0, "it has an end")
	_, err = stand.Hear([]byte("{"))
	assert.Error(t, err)
}

func TestAMomentOfARun(t *testing.T) {
	m := stand.Moment{
		Routine: practice.Routine{Name: "x", Items: []practice.Item{{Kind: practice.Play, Drill: "a", Enough: &practice.Enough{By: practice.ByTakes, Count: 2}}}},
		Event:   practice.Event{Key: practice.Start, At: 5},
	}
	told, err := stand.Step(question(t, m))
	require.NoError(t, err)
	assert.Equal(t, practice.Playing, told.State.Phase)
	assert.Equal(t, "take 1 of 2", told.Left)

	for name, spoil := range map[string]func(*stand.Moment){
		"nothing to play": func(m *stand.Moment) { m.Routine.Items = nil },
		"no such item":    func(m *stand.Moment) { m.State.Item = 2 },
		"before all":      func(m *stand.Moment) { m.State.Item = -1 },
	} {
		m := m
		spoil(&m)
		_, err := stand.Step(question(t, m))
		assert.Error(t, err, name)
	}
	_, err = stand.Step([]byte("x"))
	assert.Error(t, err)
}
