package drill_test

import (
	"encoding/json"
	"os"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"manudrill/core/drill"
	"manudrill/drilltest"
)

// Where a cell of one's own lies, by cases that the interface is held to as well; put there,
// its notes lie where they were clicked.
func TestTheHomeOfACell(t *testing.T) {
	raw, err := os.ReadFile("testdata/homes.json")
	require.NoError(t, err)
	var cases []struct {
		Notes    []drill.FreeNote
		Position int
		Strings  []int
	}
	require.NoError(t, json.Unmarshal(raw, &cases))
	for _, c := range cases {
		p := drill.Free{Notes: c.Notes}
		position, strings := p.Home()
		assert.Equal(t, c.Position, position, "%v", c.Notes)
		assert.Equal(t, c.Strings, strings, "%v", c.Notes)
		d := drilltest.Of(p, drilltest.At(position, strings...))
		if c.Position > 22 || strings[0] > 6 {
			continue // on no standard guitar
		}
		for i, n := range drilltest.Chart(t, d).Notes {
			assert.Equal(t, [2]int{c.Notes[i].String, c.Notes[i].Fret}, [2]int{n.String, n.Fret})
		}
	}
}
