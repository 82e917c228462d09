package tempo_test

import (
	"testing"

	"pgregory.net/rapid"

	"manudrill/core/tempo"
)

// A device that knows only what the ladder knew before its first take comes to the same
// decisions, take after take, as the studio, which looks back at all takes at the rung
// since the last move.
func TestADeviceClimbsAsTheStudioDoes(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		l := tempo.Usual()
		l.Gate.PassesInARow = rapid.IntRange(1, tempo.MaxPassesInARow).Draw(t, "in a row")
		at := tempo.Rung{BPM: l.StartBPM, NotesPerBeat: 2}
		device := tempo.Climbing{Ladder: l, NotesPerBeat: 2}
		var studio []tempo.Result // at this rung, that count
		for range rapid.IntRange(1, 60).Draw(t, "takes") {
			take := tempo.Result{HeldBPM: at.BPM, Foreign: rapid.IntRange(0, 9).Draw(t, "kind") == 0}
			for range rapid.IntRange(0, 3).Draw(t, "passes") {
				right := rapid.SampledFrom([]float64{100, 100, 80}).Draw(t, "right")
				take.Passes = append(take.Passes, tempo.PassFigures{RightPercent: right, SpreadPercent: 3, LevelSpreadDB: 1})
			}
			want := l.Decide(at, 2, append(studio, take))
			got := device.Decide(at, take)
			if got != want {
				t.Fatalf("the device says %+v, the studio %+v", got, want)
			}
			device = device.After(got, take)
			switch {
			case want.Next != at:
				studio = nil
			case at.Counts(take):
				studio = append(studio, take)
			}
			at = want.Next
		}
	})
}
