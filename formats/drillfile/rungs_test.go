package drillfile_test

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"manudrill/core/bounds"
	"manudrill/core/drill"
	"manudrill/core/drill/chart"
	"manudrill/core/drill/library"
	"manudrill/core/guitar"
	"manudrill/core/tempo"
	"manudrill/drilltest"
	"manudrill/formats/drillfile"
)

// A drill that is accepted is one at every rung of its ladder, whatever its tempo: it is
// written out, lies on the neck, and lasts as long as it is said to.
func TestADrillThatIsAcceptedIsOneAtEveryRung(t *testing.T) {
	if testing.Short() {
		t.Skip("takes long")
	}
	g, schema := guitar.Standard(), schemaAt(t, "")
	rapid.Check(t, func(t *rapid.T) {
		d := drilltest.AnyDrill(t)
		d.Path.Stay = drill.Stay{Count: rapid.IntRange(1, 40).Draw(t, "stay"), Unit: rapid.SampledFrom([]string{drill.Times, drill.Beats, drill.Seconds}).Draw(t, "unit")}
		d.Rhythm.Passes = rapid.IntRange(1, 4).Draw(t, "passes")
		l := tempo.Usual().From(rapid.Float64Range(tempo.MinBPM, 160).Draw(t, "start"))
		l.Rule = rapid.SampledFrom([]tempo.Rule{tempo.BySteps, tempo.ByPercent, tempo.ByDoubling, tempo.ByBoth}).Draw(t, "rule")
		file := drillfile.File{Drill: d, Ladder: l}
		if len(file.Check(g)) > 0 {
			t.Skip("it is told to have a fault")
		}
		assert.NoError(t, valid(t, schema, file), "its document fits the published schema")
		for _, r := range file.Rungs() {
			c, err := file.At(r).ChartFor(g, guitar.UsualHand(), r.BPM)
			require.NoError(t, err, "%+v at %g", d, r.BPM)
			assert.NoError(t, c.Validate())
			assert.LessOrEqual(t, len(c.Unroll()), chart.MaxNotes)
			assert.LessOrEqual(t, c.TakeSeconds(), float64(bounds.TakeSeconds))
			assert.Equal(t, len(c.Notes), file.At(r).NotesAt(g, r.BPM), "as many as the table of seconds counts")
		}
	})
}

// The shipped drills are drills at every tempo that is practised: none breaks at 172.
func TestShippedDrillsAtEveryTempo(t *testing.T) {
	if testing.Short() {
		t.Skip("takes long")
	}
	g := guitar.Standard()
	var shipped []drill.Drill
	for _, f := range library.Families() {
		shipped = append(shipped, f.Drill)
	}
	for _, set := range library.ReadySets() {
		shipped = append(shipped, set.Drills...)
	}
	for _, d := range shipped {
		for bpm := 30.0; bpm <= 240; bpm++ {
			require.Empty(t, d.CheckAt(g, bpm), "%s at %g", d.Name, bpm)
			_, err := d.Chart(g, bpm)
			require.NoError(t, err, "%s at %g", d.Name, bpm)
		}
	}
}
