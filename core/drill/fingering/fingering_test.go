package fingering

import (
	"math"
	"testing"

	"github.com/stretchr/testify/assert"
	"pgregory.net/rapid"

	"manudrill/core/guitar"
)

var grown = Player{Guitar: guitar.Standard(), Hand: guitar.UsualHand()}

// notes are string and fret in turn.
func notes(places ...int) []Note {
	out := make([]Note, len(places)/2)
	for i := range out {
		out[i] = Note{String: places[2*i], Fret: places[2*i+1]}
	}
	return out
}

// run is a run of some places.
func run(t *rapid.T) []Note {
	out := make([]Note, rapid.IntRange(1, 6).Draw(t, "notes"))
	low := rapid.IntRange(5, 14).Draw(t, "low") // nearer the nut four frets are more than a usual hand has
	for i := range out {
		out[i] = Note{String: rapid.IntRange(1, 3).Draw(t, "string"), Fret: low + rapid.IntRange(0, 4).Draw(t, "fret")}
		if rapid.IntRange(0, 9).Draw(t, "open") == 0 {
			out[i].Fret = 0
		}
	}
	return out
}

// What a good teacher would write (common practice): one finger a fret; two whole steps by
// 1-2-4, or 1-3-4 where the school says so; a half and a whole step by 1-2-4, a whole and a
// half by 1-3-4, the hand moving along as the scale does.
func TestFingersOfATeacher(t *testing.T) {
	ring := grown
	ring.Ring = true
	for name, c := range map[string]struct {
		notes []Note
		who   Player
		want  []int
	}{
		"one finger a fret":            {notes(3, 5, 3, 6, 3, 7, 3, 8), grown, []int{1, 2, 3, 4}},
		"two whole steps":              {notes(6, 7, 6, 9, 6, 11), grown, []int{1, 2, 4}},
		"the same by the ring finger":  {notes(6, 7, 6, 9, 6, 11), ring, []int{1, 3, 4}},
		"half and whole":               {notes(4, 7, 4, 8, 4, 10), grown, []int{1, 2, 4}},
		"whole and half":               {notes(2, 7, 2, 9, 2, 10), grown, []int{1, 3, 4}},
		"G major from the third fret":  {notes(6, 3, 6, 5, 6, 7, 5, 3, 5, 5, 5, 7, 4, 4, 4, 5, 4, 7, 3, 4, 3, 5, 3, 7, 2, 5, 2, 7, 2, 8), grown, []int{1, 2, 4, 1, 2, 4, 1, 2, 4, 1, 2, 4, 1, 3, 4}},
		"five notes, then the octave":  {notes(6, 5, 6, 8, 5, 5, 5, 7, 4, 5, 4, 7), grown, []int{1, 4, 1, 3, 1, 3}},
		"a semitone and back":          {notes(1, 9, 1, 10, 1, 9), grown, []int{1, 2, 1}},
		"one fret, one finger":         {notes(2, 7, 2, 9, 2, 11, 2, 9, 2, 7), grown, []int{1, 2, 4, 2, 1}},
		"an open string takes none":    {notes(1, 0, 1, 5, 1, 0), grown, []int{0, 1, 0}},
		"two fingers share a fret":     {[]Note{{String: 4, Fret: 5, Hammered: true}, {String: 3, Fret: 5, Hammered: true}}, grown, []int{1, 2}},
		"one finger lies flat":         {notes(4, 5, 3, 5), grown, []int{1, 1}},
		"a slide keeps its finger":     {[]Note{{String: 2, Fret: 5}, {String: 2, Fret: 7, Slide: true}, {String: 2, Fret: 8}}, grown, []int{1, 1, 2}},
		"what is said is kept":         {[]Note{{String: 2, Fret: 5, Given: 2}, {String: 2, Fret: 7}}, grown, []int{2, 4}},
		"the other hand has no finger": {[]Note{{String: 2, Fret: 5}, {String: 2, Fret: 12, Other: true}}, grown, []int{1, 0}},
	} {
		assert.Equal(t, c.want, Choose(c.notes, c.who), name)
	}
	assert.Empty(t, Choose(nil, grown))
}

// A hand that opens less far moves instead, as soon as the stretch is more than it has.
func TestAShorterHandMoves(t *testing.T) {
	short := Player{Guitar: guitar.Standard(), Hand: guitar.Hand{"12": 35, "23": 30, "34": 30, "13": 65, "24": 50, "14": 75}}
	tune := notes(6, 3, 6, 5, 5, 3)
	assert.Equal(t, []int{1, 3, 1}, Choose(tune, short), "two frets from the third are 59 mm: too wide for 1-2")
	assert.Greater(t, Cost(tune, []int{1, 2, 1}, short), Cost(tune, []int{1, 3, 1}, short))
}

// Nothing is cheaper than what is chosen: all fingers there are, tried one by one.
func TestNothingIsCheaper(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		tune := run(t)
		at := frettedOf(tune)
		if len(at) == 0 {
			return
		}
		_, chosen := grown.prepared(tune).cheapest(tune, at)
		least := math.Inf(1)
		fingers := make([]int, len(tune))
		var try func(i int)
		try = func(i int) {
			if i == len(at) {
				least = min(least, Cost(tune, fingers, grown))
				return
			}
			for f := 1; f <= 4; f++ {
				fingers[at[i]] = f
				try(i + 1)
			}
		}
		try(0)
		assert.InDelta(t, least, chosen, 1e-9)
	})
}

// What is chosen, with places kept alike, costs at most a little more than the least.
func TestPlacesKeptAlikeCostLittle(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		tune := run(t)
		at := frettedOf(tune)
		if len(at) == 0 {
			return
		}
		_, least := grown.prepared(tune).cheapest(tune, at)
		assert.LessOrEqual(t, Cost(tune, Choose(tune, grown), grown), least+unlike*float64(2*len(at)+lead))
	})
}

// No finger is where another is: in one place of the hand the higher fret of a string takes
// the higher finger, and on two strings in a row no finger jumps while there is another.
func TestFingersFollowTheFrets(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		tune := run(t)
		fingers := Choose(tune, grown)
		for i := 1; i < len(tune); i++ {
			a, b, f, g := tune[i-1], tune[i], fingers[i-1], fingers[i]
			if !a.fretted() || !b.fretted() {
				continue
			}
			if a.String == b.String && a.Fret != b.Fret {
				assert.NotEqual(t, f, g, "one finger on two frets of a string, at %d of %v", i, tune)
			}
			if a.String != b.String && max(a.Fret-b.Fret, b.Fret-a.Fret) > 1 { // by one the hand just moves along
				assert.NotEqual(t, f, g, "one finger on two strings at two frets, at %d of %v", i, tune)
			}
			assert.GreaterOrEqual(t, (b.Fret-a.Fret)*(g-f), 0, "fingers cross at %d of %v: %v", i, tune, fingers)
		}
	})
}

// The cost grows with what is uncomfortable: each of the costs that are named decides
// something.
func TestEachCostDecides(t *testing.T) {
	worse := func(name string, tune []Note, better, bad []int) {
		t.Helper()
		assert.Less(t, Cost(tune, better, grown), Cost(tune, bad, grown), name)
	}
	worse("openFret", notes(3, 9, 3, 10), []int{1, 2}, []int{1, 3})
	worse("crowdedFret", notes(3, 5, 3, 8), []int{1, 4}, []int{3, 4})
	worse("idle", notes(1, 10, 1, 12), []int{1, 3}, []int{2, 4})
	worse("behindNut", notes(1, 1, 2, 1), []int{1, 1}, []int{4, 4})
	worse("shiftBound", notes(3, 5, 3, 6, 3, 8, 3, 6), []int{1, 2, 4, 2}, []int{1, 2, 4, 1})
	worse("tightTenth", notes(6, 2, 6, 4), []int{1, 3}, []int{1, 2})
	worse("beyond", notes(6, 1, 6, 3), []int{1, 3}, []int{1, 2})
	worse("leapString", notes(3, 5, 3, 7), []int{1, 3}, []int{1, 1})
	worse("leapAcross", notes(3, 5, 2, 7), []int{1, 3}, []int{1, 1})
	worse("changed", notes(3, 5, 3, 5), []int{1, 1}, []int{1, 2})
	worse("crossed", notes(3, 5, 2, 7), []int{1, 3}, []int{3, 1})
	worse("flatSkip", notes(4, 5, 2, 5), []int{1, 2}, []int{1, 1})
	worse("sharedWrong", notes(4, 5, 3, 5), []int{2, 3}, []int{3, 2})
	worse("otherSchool", notes(3, 9, 3, 11, 3, 13), []int{1, 2, 4}, []int{1, 3, 4})
}

// The time grows with the notes, not with their square.
func BenchmarkChoose(b *testing.B) {
	tune := make([]Note, 4000)
	for i := range tune {
		tune[i] = Note{String: 1 + i/3%6, Fret: 5 + 2*(i%3)}
	}
	for b.Loop() {
		Choose(tune, grown)
	}
}
