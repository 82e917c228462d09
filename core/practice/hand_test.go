package practice_test

import (
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"manudrill/core/drill"
	"manudrill/core/drill/chart"
	"manudrill/core/guitar"
	"manudrill/core/practice"
)

func TestHandReports(t *testing.T) {
	for _, good := range []practice.HandReport{
		{Kind: practice.IsTired}, {Kind: practice.IsHurt, Aches: []practice.Place{"wrist"}, Text: "since yesterday"}, {Kind: practice.AfterPlaying, Effort: 10, Aches: practice.Places},
	} {
		assert.Empty(t, good.Check(), good.Kind)
	}
	for name, bad := range map[string]practice.HandReport{
		"nothing":    {},
		"no effort":  {Kind: practice.AfterPlaying},
		"beyond all": {Kind: practice.AfterPlaying, Effort: 11},
		"too early":  {Kind: practice.IsHurt, Effort: 3},
		"no place":   {Kind: practice.IsHurt, Aches: []practice.Place{"ear"}},
		"twice":      {Kind: practice.IsHurt, Aches: []practice.Place{"wrist", "wrist"}},
		"too long":   {Kind: practice.IsHurt, Text: strings.Repeat("x", practice.MaxText+1)},
		"no text":    {Kind: practice.IsHurt, Text: "a\x00b"},
	} {
		assert.NotEmpty(t, bad.Check(), name)
	}
}

// By hand: of 1-2-4 up and down, slurred, five notes are one stroke and four slurs.
func TestTheShareOfSlurs(t *testing.T) {
	d := drill.New("x", drill.SlurCombinations{Combinations: [][]int{{1, 2, 4}}, Slur: drill.BothSlurs})
	written, err := d.Chart(guitar.Standard(), 60)
	require.NoError(t, err)
	assert.InDelta(t, 0.8, practice.SlurShare(written), 1e-12)
	d.Attacks.Rule = drill.AllPicked
	written, err = d.Chart(guitar.Standard(), 60)
	require.NoError(t, err)
	assert.Zero(t, practice.SlurShare(written))
	assert.Zero(t, practice.SlurShare(chart.Chart{}))
}
