package midifile

import (
	"bytes"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"manudrill/core/drill"
)

// The table of variable-length quantities in the Standard MIDI Files 1.0
// specification.
func TestVariableLengthQuantitiesOfTheSpecification(t *testing.T) {
	for n, want := range map[int][]byte{
		0x00: {0x00}, 0x40: {0x40}, 0x7f: {0x7f}, 0x80: {0x81, 0x00}, 0x2000: {0xc0, 0x00}, 0x3fff: {0xff, 0x7f},
		0x4000: {0x81, 0x80, 0x00}, 0x100000: {0xc0, 0x80, 0x00}, 0x1fffff: {0xff, 0xff, 0x7f},
		0x200000: {0x81, 0x80, 0x80, 0x00}, 0x8000000: {0xc0, 0x80, 0x80, 0x00}, 0xfffffff: {0xff, 0xff, 0xff, 0x7f},
	} {
		assert.Equal(t, want, variable(n), "%x", n)
		r := bytesReader{b: want}
		assert.Equal(t, n, r.variable())
		assert.NoError(t, r.err)
	}
}

// The example of a file of format 0 at the end of the same specification (from
// memory): 120 beats per minute, 96 ticks a beat, running status, three channels.
var example = []byte("MThd\x00\x00\x00\x06\x00\x00\x00\x01\x00\x60MTrk\x00\x00\x00\x3b" +
	"\x00\xff\x58\x04\x04\x02\x18\x08\x00\xff\x51\x03\x07\xa1\x20\x00\xc0\x05\x00\xc1\x2e\x00\xc2\x46" +
	"\x00\x92\x30\x60\x00\x3c\x60\x60\x91\x43\x40\x60\x90\x4c\x20\x81\x40\x82\x30\x40\x00\x3c\x40" +
	"\x00\x81\x43\x40\x00\x80\x4c\x40\x00\xff\x2f\x00")

func TestTheExampleOfTheSpecification(t *testing.T) {
	s, err := Read(example)
	require.NoError(t, err)
	assert.InDelta(t, 120, s.BPM, 1e-9)
	assert.Equal(t, 4, s.BeatsPerBar)
	require.Len(t, s.Notes, 3, "of the two that begin together the higher one is the melody")
	for i, want := range []struct {
		beat float64
		midi int
	}{{0, 60}, {1, 67}, {2, 76}} {
		assert.InDelta(t, want.beat, s.Notes[i].Beat, 1e-9)
		assert.Equal(t, want.midi, s.Notes[i].MIDI)
		assert.Zero(t, s.Notes[i].String, "no place is told")
	}
}

// What is made one line of is told; what fills a file up after its last track is no matter.
func TestWhatIsToldOfAFile(t *testing.T) {
	s, err := Read(example)
	require.NoError(t, err)
	assert.Equal(t, []string{
		"Notes are on 3 tracks or channels, which are read as one line: for one of them, save it alone.", "In one place several notes begin together; the highest is kept.",
	}, s.Told)
	same, err := Read(append(bytes.Clone(example), make([]byte, 100)...))
	require.NoError(t, err)
	assert.Equal(t, s, same)
	own, err := Read(Write(someScore()))
	require.NoError(t, err)
	assert.Empty(t, own.Told)
}

func TestEveryCutIsFound(t *testing.T) {
	for n := range len(example) - 1 {
		_, err := Read(example[:n])
		assert.Error(t, err, "%d bytes", n)
	}
}

func TestFilesThatAreNone(t *testing.T) {
	for name, c := range map[string]struct {
		file []byte
		want error
	}{
		"empty":                {nil, ErrNotMIDI},
		"text":                 {[]byte("this is a letter, not a song"), ErrNotMIDI},
		"starts in a message":  {[]byte("MThd\x00\x00\x00\x06\x00\x00\x00\x01\x00\x60MTrk\x00\x00\x00\x03\x00\x40\x40"), ErrNotMIDI},
		"patterns":             {[]byte("MThd\x00\x00\x00\x06\x00\x02\x00\x01\x00\x60MTrk\x00\x00\x00\x04\x00\xff\x2f\x00"), ErrPatterns},
		"film frames":          {[]byte("MThd\x00\x00\x00\x06\x00\x00\x00\x01\xe7\x28"), ErrFrames},
		"no division":          {[]byte("MThd\x00\x00\x00\x06\x00\x00\x00\x01\x00\x00"), ErrFrames},
		"only percussion":      {[]byte("MThd\x00\x00\x00\x06\x00\x00\x00\x01\x00\x60MTrk\x00\x00\x00\x08\x00\x99\x4c\x40\x00\xff\x2f\x00"), ErrNoNotes},
		"a header that lies":   {[]byte("MThd\x00\x00\xff\xff\x00\x00\x00\x01\x00\x60"), ErrCutOff},
		"a track that lies":    {[]byte("MThd\x00\x00\x00\x06\x00\x00\x00\x01\x00\x60MTrk\x7f\xff\xff\xff\x00"), ErrCutOff},
		"an event that lies":   {[]byte("MThd\x00\x00\x00\x06\x00\x00\x00\x01\x00\x60MTrk\x00\x00\x00\x04\x00\xff\x01\x7f"), ErrCutOff},
		"unknown chunk, empty": {[]byte("MThd\x00\x00\x00\x06\x00\x00\x00\x01\x00\x60XFIH\x00\x00\x00\x00"), ErrNoNotes},
	} {
		_, err := Read(c.file)
		assert.ErrorIs(t, err, c.want, name)
	}
}

func someScore() drill.Score {
	return drill.Score{
		Name: "two", BPM: 100, BeatsPerBar: 3, NotesPerBeat: 2, Passes: 2,
		Notes: []drill.ScoreNote{
			{Beat: 0, MIDI: 62, String: 3, Fret: 7, Finger: 1, Hand: drill.FrettingHand, Attack: drill.Pick, Stroke: drill.UpStroke},
			{Beat: 0.5, MIDI: 66, String: 3, Fret: 9, Finger: 3, Hand: drill.FrettingHand, Attack: drill.Hammer, Bend: 2},
		},
	}
}

func TestTextsTellWhatMIDICannot(t *testing.T) {
	s := someScore()
	assert.Equal(t, "string 3 fret 7 finger 1 pick up", textOf(s.Notes[0]))
	assert.Equal(t, "string 3 fret 9 finger 3 hammer bend 2", textOf(s.Notes[1]))
	for _, n := range s.Notes {
		read := drill.ScoreNote{Beat: n.Beat, MIDI: n.MIDI}
		readText(textOf(n), &read)
		assert.Equal(t, n, read)
	}
	untouched := drill.ScoreNote{MIDI: 60}
	for _, text := range []string{"", "la la la", "string 3 fret 7", "string 3 fret 7 finger 1 yodel"} {
		readText(text, &untouched)
		assert.Equal(t, drill.ScoreNote{MIDI: 60}, untouched, text)
	}
}

func TestANoteEndsBeforeTheNextBegins(t *testing.T) {
	var out []event
	writeAll := notes(someScore())
	for _, e := range writeAll {
		if kind := e.data[0] & 0xf0; kind == 0x80 || kind == 0x90 {
			out = append(out, e)
		}
	}
	assert.Len(t, out, 8, "two notes in each of two passes")
	assert.Equal(t, 480, passTicks(someScore()), "one beat at 480 ticks")
	s, err := Read(Write(someScore()))
	require.NoError(t, err)
	assert.Equal(t, someScore().Notes, s.Notes)
	assert.Equal(t, 2, s.Passes)
	assert.InDelta(t, 100, s.BPM, 1e-9)
}

// The same example as it is played: times, levels by velocity, and what is held
// over the next note.
func TestTheExampleAsItIsPlayed(t *testing.T) {
	notes, err := Played(example)
	require.NoError(t, err)
	require.Len(t, notes, 4)
	for i, want := range []struct {
		onset, end float64
		midi       int
		rings      bool
	}{{0, 0, 48, false}, {0, 0.5, 60, true}, {0.5, 1, 67, true}, {1, 2, 76, true}} {
		assert.InDelta(t, want.onset, notes[i].Onset, 1e-9)
		assert.InDelta(t, want.end, notes[i].End, 1e-9, "note %d", i)
		assert.Equal(t, want.midi, notes[i].MIDI())
		assert.Equal(t, want.rings, notes[i].Carry.DB == 0 && notes[i].Carry.Known, "note %d", i)
	}
	assert.InDelta(t, -11.9, notes[2].LevelDB, 0.05, "velocity 64 is half of full scale, squared")
	_, err = Played(example[:30])
	assert.ErrorIs(t, err, ErrCutOff)
}

// After a change of tempo a beat lasts as long as the new one says.
func TestATempoChangeIsFollowed(t *testing.T) {
	s := song{division: 480, tempos: []tempoFrom{{960, 250_000}, {0, 500_000}}}.clock()
	assert.Zero(t, s.seconds(0))
	assert.InDelta(t, 1.0, s.seconds(960), 1e-12)
	assert.InDelta(t, 1.25, s.seconds(1440), 1e-12)
}
