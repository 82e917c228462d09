package listen

import (
	"math"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// What lies well below half the lower rate passes as it is and where it is, however the
// stream is cut into pieces; what lies well above is gone.
func TestThinningKeepsWhatIsLowAndWhereItIs(t *testing.T) {
	for _, rate := range []float64{44100, 48000, 88200, 96000, 192000} {
		for _, tone := range []struct{ hz, share float64 }{{110, 1}, {3000, 1}, {16000, 0}} {
			t1 := newThinner(rate)
			require.Greater(t, t1.by, 1)
			x := make([]float64, int(rate/5))
			for i := range x {
				x[i] = math.Sin(2 * math.Pi * tone.hz * float64(i) / rate)
			}
			var kept []float64
			for at, piece := 0, 1; at < len(x); at, piece = at+piece, piece%700+13 {
				kept = append(kept, t1.thin(x[at:min(len(x), at+piece)])...)
			}
			assert.InDelta(t, len(x)/t1.by, len(kept), 2*tapsAside)
			for i, v := range kept[2*tapsAside:] {
				assert.InDelta(t, tone.share*x[(i+2*tapsAside)*t1.by], v, 0.02, "%v Hz at %v, sample %d", tone.hz, rate, i)
			}
		}
	}
}
