package guitar_test

import (
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"

	"manudrill/core/guitar"
)

// Scales as textbooks spell them (common practice).
func TestScalesAreSpelledAsInTextbooks(t *testing.T) {
	for want, key := range map[string]guitar.Key{
		"C D E F G A B":      {Root: 0, Scale: "major"},
		"F G A Bb C D E":     {Root: 5, Scale: "major"},
		"D E F# G A B C#":    {Root: 2, Scale: "major"},
		"Eb F G Ab Bb C D":   {Root: 3, Scale: "major"},
		"B C# D# E F# G# A#": {Root: 11, Scale: "major"},
		"C D Eb F G Ab Bb":   {Root: 0, Scale: "naturalMinor"},
		"A B C D E F G#":     {Root: 9, Scale: "harmonicMinor"},
		"G A Bb C D E F#":    {Root: 7, Scale: "melodicMinor"},
		"D E F G A B C":      {Root: 2, Scale: "dorian"},
		"C D Eb Gb G":        {Root: 0, Scale: guitar.OwnScale, Intervals: []int{0, 2, 3, 6, 7}},
		"A C D E G":          {Root: 9, Scale: "minorPentatonic"},
		"Bb C D F G":         {Root: 10, Scale: "majorPentatonic"},
		"C D# E":             {Root: 0, Scale: guitar.OwnScale, Intervals: []int{0, 3, 4}},
	} {
		speller := guitar.NewSpeller(&key)
		var got []string
		for d := range key.Size() {
			got = append(got, strings.TrimRight(speller.Spell(60+(key.Degree(d)%12)).String(), "0123456789"))
		}
		assert.Equal(t, want, strings.Join(got, " "))
	}
}

func TestOctavesTurnAtC(t *testing.T) {
	flat := guitar.NewSpeller(&guitar.Key{Root: 6, Scale: "major"})
	assert.Equal(t, "B3", guitar.NewSpeller(nil).Spell(59).String())
	assert.Equal(t, "C4", guitar.NewSpeller(nil).Spell(60).String())
	assert.Contains(t, []string{"Cb4", "B3"}, flat.Spell(59).String(), "sounding B3 is written B3 or C flat 4")
	assert.Equal(t, guitar.Spelling{Step: "F", Alter: 1, Octave: 4}, guitar.NewSpeller(nil).Spell(66))
}

func TestKeys(t *testing.T) {
	k := guitar.Key{Root: 9, Scale: "blues"}
	assert.Equal(t, "A blues", k.Name())
	first := k.DegreeFrom(45) // A2, the open fifth string
	var got []int
	for d := range 7 {
		got = append(got, k.Degree(first+d))
	}
	assert.Equal(t, []int{45, 48, 50, 51, 52, 55, 57}, got)
	assert.Equal(t, first+1, k.DegreeFrom(46), "at or above")
	for _, bad := range []guitar.Key{
		{Root: 12, Scale: "major"}, {Scale: "bossa"}, {Scale: guitar.OwnScale}, {Scale: guitar.OwnScale, Intervals: []int{0, 4, 3}},
		{Scale: guitar.OwnScale, Intervals: []int{1, 3}}, {Scale: guitar.OwnScale, Intervals: []int{0, 12}},
	} {
		assert.Error(t, bad.Validate(), "%v", bad)
	}
}

func TestHands(t *testing.T) {
	h := guitar.UsualHand()
	assert.NoError(t, h.Validate())
	mm, known := h.Span(4, 1)
	assert.True(t, known)
	assert.InDelta(t, h["14"], mm, 0)
	_, known = h.Span(2, 2)
	assert.False(t, known)
	assert.Error(t, guitar.Hand{"12": 5}.Validate())
	assert.Error(t, guitar.Hand{"15": 60}.Validate())
}

// Chords by their intervals (common practice).
func TestChordNames(t *testing.T) {
	for name, notes := range map[string][]int{
		"C major": {48, 64, 67}, "A minor": {57, 60, 64}, "G dominant seventh": {43, 59, 62, 65},
		"B diminished": {59, 62, 65}, "D minor seventh": {50, 53, 57, 60}, "E fifth": {40, 47, 52},
	} {
		chord, known := guitar.ChordOf(notes)
		assert.True(t, known, name)
		assert.Equal(t, name, chord.Name)
	}
	inverted, _ := guitar.ChordOf([]int{52, 55, 60})
	assert.Equal(t, "C major", inverted.Name, "E in the bass")
	_, known := guitar.ChordOf([]int{60, 61, 62})
	assert.False(t, known)
	_, known = guitar.ChordOf(nil)
	assert.False(t, known)
}

// Signatures by the circle of fifths (common practice, as any book of elementary theory has
// it).
func TestSignatures(t *testing.T) {
	for _, c := range []struct {
		key  guitar.Key
		want int
	}{
		{guitar.Key{Root: 0, Scale: "major"}, 0}, {guitar.Key{Root: 7, Scale: "major"}, 1}, {guitar.Key{Root: 9, Scale: "major"}, 3},
		{guitar.Key{Root: 6, Scale: "major"}, 6}, {guitar.Key{Root: 6, Scale: "major", Spelled: guitar.WithFlats}, -6}, {guitar.Key{Root: 5, Scale: "major"}, -1},
		{guitar.Key{Root: 1, Scale: "major"}, -5}, {guitar.Key{Root: 1, Scale: "major", Spelled: guitar.WithSharps}, 7},
		{guitar.Key{Root: 9, Scale: "naturalMinor"}, 0}, {guitar.Key{Root: 4, Scale: "naturalMinor"}, 1}, {guitar.Key{Root: 2, Scale: "dorian"}, 0},
		{guitar.Key{Root: 4, Scale: "phrygian"}, 0}, {guitar.Key{Root: 7, Scale: "mixolydian"}, 0}, {guitar.Key{Root: 5, Scale: "lydian"}, 0}, {guitar.Key{Root: 11, Scale: "locrian"}, 0},
		{guitar.Key{Root: 9, Scale: "harmonicMinor"}, 0}, {guitar.Key{Root: 2, Scale: "melodicMinor"}, -1},
		{guitar.Key{Root: 9, Scale: "minorPentatonic"}, 0}, {guitar.Key{Root: 7, Scale: "majorPentatonic"}, 1}, {guitar.Key{Root: 2, Scale: "minor7"}, -1},
		{guitar.Key{Root: 3, Scale: "chromatic"}, 0}, {guitar.Key{Root: 3, Scale: "none"}, 0},
	} {
		assert.Equal(t, c.want, c.key.Fifths(), "%+v", c.key)
	}
}
