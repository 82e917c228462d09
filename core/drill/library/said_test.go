package library_test

import (
	"encoding/json"
	"fmt"
	"slices"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"manudrill/core/drill/library"
	"manudrill/drilltest"
)

// How long an action takes at a screen by the keystroke-level model (Card, Moran & Newell,
// Comm. ACM 23, 1980; values from memory), in seconds: thinking of what comes next, pointing,
// pressing, and a hand's way to the keyboard and back.
const (
	thinks, points, presses, homes = 1.35, 1.1, 0.2, 0.8
	chooses                        = thinks + points + presses
)

// Each drill that is said aloud is set from its family in less than a minute: a press or two
// for the family, then a press for each setting that differs, and its characters where it is
// typed. Steppers are typed too.
func TestSaidDrillsAreSetInAMinute(t *testing.T) {
	families := map[string]any{}
	for _, f := range library.Families() {
		families[f.ID] = plain(t, f.Drill)
	}
	slowest := 0.0
	for _, s := range drilltest.Said() {
		from, known := families[s.Family]
		require.True(t, known, s.Family)
		took := 2 * chooses
		for _, typed := range differences(from, plain(t, s.Drill)) {
			took += chooses
			if typed > 0 {
				took += 2*homes + presses*float64(typed)
			}
		}
		assert.Less(t, took, 60.0, s.Said)
		slowest = max(slowest, took)
	}
	t.Logf("the slowest takes %.0f s", slowest)
}

func plain(t *testing.T, v any) (out map[string]any) {
	raw, err := json.Marshal(v)
	require.NoError(t, err)
	require.NoError(t, json.Unmarshal(raw, &out))
	delete(out, "name") // which is no part of how it is played
	return out
}

// differences are the settings in which two drills differ: how many characters are typed for
// each, 0 where it is pressed.
func differences(a, b any) (typed []int) {
	from, isMap := a.(map[string]any)
	to, both := b.(map[string]any)
	if isMap && both {
		keys := map[string]bool{}
		for k := range from {
			keys[k] = true
		}
		for k := range to {
			keys[k] = true
		}
		for k := range keys {
			if k == "then" {
				typed = append(typed, addedParts(to)...)
				continue
			}
			typed = append(typed, differences(from[k], to[k])...)
		}
		return typed
	}
	if fmt.Sprint(a) == fmt.Sprint(b) {
		return nil
	}
	switch b.(type) {
	case []any, float64:
		return []int{len(fmt.Sprint(b)) - 2*min(1, len(fmt.Sprint(b))/3)}
	case map[string]any: // something new, such as a key: each of its settings
		return slices.Repeat([]int{0}, len(to))
	}
	return []int{0}
}

// addedParts are the settings of parts that follow: a press for each, which copies the one
// before, and what differs from that.
func addedParts(drill map[string]any) (typed []int) {
	before := map[string]any{}
	for _, k := range []string{"pattern", "key", "path", "attacks", "strokes", "fingering", "mirror", "reverse"} {
		if v, has := drill[k]; has {
			before[k] = v
		}
	}
	then, _ := drill["then"].([]any)
	for _, part := range then {
		typed = append(append(typed, 0), differences(before, part)...)
		before = part.(map[string]any)
	}
	return typed
}
