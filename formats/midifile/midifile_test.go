package midifile

import (
	"bytes"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"manudrill/core/drill/chart"
	"manudrill/core/drill/score"
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
	s, err := Read(example, score.AnyLine)
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
	s, err := Read(example, score.AnyLine)
	require.NoError(t, err)
	assert.Equal(t, []string{
		"Notes are on 3 channels, which are read as one line.", "In 1 place several notes begin together; the highest is kept.",
	}, s.Told)
	same, err := Read(append(bytes.Clone(example), make([]byte, 100)...), score.AnyLine)
	require.NoError(t, err)
	assert.Equal(t, s, same)
	own, err := Read(Write(someScore()), score.AnyLine)
	require.NoError(t, err)
	assert.Empty(t, own.Told)
}

// smf is a file of format 1, 96 ticks a beat, of tracks.
func smf(tracks ...[]byte) []byte {
	file := append([]byte("MThd\x00\x00\x00\x06\x00\x01\x00"), byte(len(tracks)), 0, 96)
	for _, track := range tracks {
		track = append(track, 0, 0xff, 0x2f, 0)
		file = append(file, 'M', 'T', 'r', 'k', 0, 0, byte(len(track)>>8), byte(len(track)))
		file = append(file, track...)
	}
	return file
}

// named is the event of a track's name.
func named(name string) []byte { return append([]byte{0, 0xff, 3, byte(len(name))}, name...) }

// quarters are notes of a beat each on a channel.
func quarters(channel byte, pitches ...byte) (track []byte) {
	for _, p := range pitches {
		track = append(track, 0, 0x90|channel, p, 80, 96, p, 0)
	}
	return track
}

// What others save has a track for each player: each can be read, each channel of one too,
// and all together. Unasked it is the track with the most notes.
func TestOneLineOfSeveralIsRead(t *testing.T) {
	file := smf(named("Tune"), append(named("Bass"), quarters(1, 40, 43)...), append(named("Lead"), append(quarters(0, 64, 65), quarters(2, 76)...)...))
	lines := []score.Line{{Name: "Bass", Notes: 2}, {Name: "Lead", Notes: 3}, {Name: "Lead, channel 1", Notes: 2}, {Name: "Lead, channel 3", Notes: 1}, {Name: "All tracks together", Notes: 5}}
	for asked, want := range map[int][]int{score.AnyLine: {64, 65, 76}, 0: {40, 43}, 1: {64, 65, 76}, 2: {64, 65}, 3: {76}, 4: {64, 65, 76}} {
		s, err := Read(file, asked)
		require.NoError(t, err)
		assert.Equal(t, lines, s.Lines)
		var got []int
		for _, n := range s.Notes {
			got = append(got, n.MIDI)
		}
		assert.Equal(t, want, got, "line %d", asked)
		assert.Zero(t, s.Notes[0].Beat, "the first note read begins on beat 0")
	}
	s, err := Read(file, score.AnyLine)
	require.NoError(t, err)
	assert.Equal(t, []string{"The file has notes on 2 tracks; “Lead” is read.", "Notes are on 2 channels, which are read as one line."}, s.Told)
	for _, asked := range []int{5, -2} {
		_, err = Read(file, asked)
		assert.ErrorContains(t, err, "choose one of its 5")
	}
}

// Bars as the times of the file make them, six eighths as two beats, and the tempo that holds
// at the first note that is read.
func TestTimesAndTempi(t *testing.T) {
	leader := []byte{
		0, 0xff, 0x58, 4, 3, 2, 24, 8, 0, 0xff, 0x51, 3, 0x0f, 0x42, 0x40, // three quarters at 60
		0x84, 0x40, 0xff, 0x58, 4, 2, 2, 24, 8, 0, 0xff, 0x51, 3, 0x07, 0xa1, 0x20, // after two bars two quarters at 120
	}
	s, err := Read(smf(leader, quarters(0, 60, 61, 62, 63, 64, 65, 66, 67, 68, 69)), score.AnyLine)
	require.NoError(t, err)
	var bars []int
	for _, n := range s.Notes {
		bars = append(bars, n.Bar)
	}
	assert.Equal(t, []int{0, 0, 0, 1, 1, 1, 2, 2, 3, 3}, bars)
	assert.InDelta(t, 60, s.BPM, 1e-9)
	slow, quick := s.Range()
	assert.Equal(t, []float64{60, 120}, []float64{slow, quick})
	require.NoError(t, s.Within(3, 4))
	assert.InDelta(t, 120, s.BPM, 1e-9, "at the first of the bars that are read")
	assert.Zero(t, s.Notes[0].Beat)
	slow, quick = s.Range()
	assert.Equal(t, []float64{120, 120}, []float64{slow, quick})

	eighths := []byte{0, 0xff, 0x58, 4, 6, 3, 36, 8, 0, 0xff, 0x51, 3, 0x07, 0xa1, 0x20}
	for i := range byte(6) {
		eighths = append(eighths, 0, 0x90, 60+i, 80, 48, 60+i, 0)
	}
	s, err = Read(smf(eighths), score.AnyLine)
	require.NoError(t, err)
	assert.Equal(t, 2, s.BeatsPerBar)
	assert.InDelta(t, 1.0/3, s.Notes[1].Beat, 1e-9)
	assert.InDelta(t, 80, s.BPM, 1e-9, "120 quarters a minute are 80 of three eighths")
}

func TestEveryCutIsFound(t *testing.T) {
	for n := range len(example) - 1 {
		_, err := Read(example[:n], score.AnyLine)
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
		_, err := Read(c.file, score.AnyLine)
		assert.ErrorIs(t, err, c.want, name)
	}
}

func someScore() score.Score {
	return score.Score{
		Name: "two", BPM: 100, BeatsPerBar: 3, NotesPerBeat: 2, Passes: 2,
		Notes: []score.Note{
			{Beat: 0, MIDI: 62, String: 3, Fret: 7, Finger: 1, Hand: chart.FrettingHand, Attack: chart.Pick, Stroke: chart.UpStroke},
			{Beat: 0.5, MIDI: 66, String: 3, Fret: 9, Finger: 3, Hand: chart.FrettingHand, Attack: chart.Hammer, Bend: 2},
		},
	}
}

func TestTextsTellWhatMIDICannot(t *testing.T) {
	s := someScore()
	assert.Equal(t, "string 3 fret 7 finger 1 pick up", textOf(s.Notes[0]))
	assert.Equal(t, "string 3 fret 9 finger 3 hammer bend 2", textOf(s.Notes[1]))
	for _, n := range s.Notes {
		read := score.Note{Beat: n.Beat, MIDI: n.MIDI}
		readText(textOf(n), &read)
		assert.Equal(t, n, read)
	}
	untouched := score.Note{MIDI: 60}
	for _, text := range []string{"", "la la la", "string 3 fret 7", "string 3 fret 7 finger 1 yodel"} {
		readText(text, &untouched)
		assert.Equal(t, score.Note{MIDI: 60}, untouched, text)
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
	s, err := Read(Write(someScore()), score.AnyLine)
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

// The click goes on to the end of the bar that was begun: a metronome does not stop with the
// last note.
func TestTheClickFillsTheBar(t *testing.T) {
	s := score.Score{Name: "five", BPM: 100, BeatsPerBar: 4, NotesPerBeat: 2, Passes: 1}
	for i := range 5 {
		s.Notes = append(s.Notes, score.Note{Beat: float64(i) / 2, MIDI: 60, String: 3, Fret: 5, Attack: chart.Pick})
	}
	file := Write(s)
	strong := bytes.Count(file, []byte{0x99, 76, 100})
	weak := bytes.Count(file, []byte{0x99, 77, 100})
	assert.Equal(t, []int{1, 3}, []int{strong, weak}, "five notes at two a beat are two beats and a half; the bar has four")
	s.Notes = append(s.Notes, s.Notes...)[:8]
	for i := range s.Notes {
		s.Notes[i].Beat = float64(i) / 2
	}
	assert.Equal(t, 4, bytes.Count(Write(s), []byte{0x99}), "a whole bar is a whole bar")
}
