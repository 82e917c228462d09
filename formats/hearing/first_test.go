package hearing_test

import (
	"bytes"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"manudrill/core/drill/library"
	"manudrill/core/guitar"
	"manudrill/core/tempo"
	"manudrill/formats/drillfile"
	"manudrill/formats/exchange"
	"manudrill/formats/hearing"
)

// Exported sound begins with its first note: no silence before it helps to find it. A click
// falls together with it, where there is one.
func TestANoteAtTheVeryStartIsHeard(t *testing.T) {
	for i, f := range library.Families() {
		format := []exchange.Format{exchange.WAV, exchange.ClickWAV}[i%2]
		file := drillfile.File{Drill: f.Drill, Ladder: tempo.Usual()}
		out, err := exchange.Export(file, guitar.Standard(), guitar.UsualHand(), 100, format)
		require.NoError(t, err, f.ID)
		c, err := f.Drill.Chart(guitar.Standard(), 100)
		require.NoError(t, err)
		heard, err := hearing.Hear(t.Context(), bytes.NewReader(out.Content), nil)
		require.NoError(t, err, f.ID)
		require.NotEmpty(t, heard.Notes, f.ID)
		first := heard.Notes[0]
		assert.InDelta(t, 0, first.Onset, 0.01, "%s as %s", f.ID, format)
		assert.Equal(t, c.Notes[0].MIDI, first.MIDI(), "%s as %s", f.ID, format)
	}
}
