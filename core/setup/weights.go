package setup

import (
	"encoding/json"
	"fmt"
)

// Weights say how much each part of the difficulty counts for an instructor.
type Weights struct {
	Stretch   float64            `json:"stretch"`
	Pairs     float64            `json:"pairs"`
	Crossings float64            `json:"crossings"`
	Skips     float64            `json:"skips"`
	Shifts    float64            `json:"shifts"`
	Hands     float64            `json:"hands"` // taps, and what two hands do in turn
	Speed     float64            `json:"speed"`
	Pair      map[string]float64 `json:"pair"` // how hard each pair of fingers is, 0 to 1
}

// UsualWeights count all parts the same, and hold the pairs of the ring and
// little finger for the hardest. Teachers differ here; that is why it can be set.
func UsualWeights() Weights {
	return Weights{
		Stretch: 1, Pairs: 1, Crossings: 1, Skips: 1, Shifts: 1, Hands: 1, Speed: 1,
		Pair: map[string]float64{"12": 0.2, "23": 0.5, "34": 1, "13": 0.3, "24": 0.8, "14": 0.5},
	}
}

// UnmarshalJSON reads weights; the part that earlier ones do not know counts as it usually
// does.
func (w *Weights) UnmarshalJSON(b []byte) error {
	type plain Weights
	read := plain{Hands: UsualWeights().Hands}
	if err := json.Unmarshal(b, &read); err != nil {
		return err
	}
	*w = Weights(read)
	return nil
}

// Validate says what cannot be weights, or nil.
func (w Weights) Validate() error {
	for _, part := range []float64{w.Stretch, w.Pairs, w.Crossings, w.Skips, w.Shifts, w.Hands, w.Speed} {
		if !(part >= 0 && part <= 5) {
			return fmt.Errorf("a weight is %g; give 0 to 5", part)
		}
	}
	for pair, hard := range w.Pair {
		if !(hard >= 0 && hard <= 1) {
			return fmt.Errorf("the pair %s is set to %g; give 0 (easy) to 1 (hard)", pair, hard)
		}
	}
	return nil
}
