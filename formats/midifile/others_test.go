package midifile

import (
	"os"
	"os/exec"
	"path/filepath"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"manudrill/core/drill/score"
)

// A duet as LilyPond makes MIDI of it: names of its own for tracks, six eighths, a bass beside
// the tune, a tempo that is held back at the end.
const duet = `\version "2.22.0"
\score {
  <<
    \new Staff \with { midiInstrument = "acoustic guitar (nylon)" } \new Voice = "tune" \relative c' {
      \time 6/8 \tempo 4. = 60 c8 d e f g a | b c d e d c \tempo 4. = 30 | g4.~ g }
    \new Staff \with { midiInstrument = "acoustic bass" } { \clef bass \time 6/8 c4. g | c g | <c e>2. }
  >>
  \midi { }
}`

func TestAFileOfLilyPond(t *testing.T) {
	dir := t.TempDir()
	require.NoError(t, os.WriteFile(filepath.Join(dir, "duet.ly"), []byte(duet), 0o600))
	made := exec.Command("lilypond", "--output=duet", "duet.ly")
	made.Dir = dir
	out, err := made.CombinedOutput()
	require.NoError(t, err, "%s", out)
	files, err := filepath.Glob(filepath.Join(dir, "duet.mid*"))
	require.NoError(t, err)
	require.Len(t, files, 1)
	raw, err := os.ReadFile(files[0])
	require.NoError(t, err)

	s, err := Read(raw, score.AnyLine)
	require.NoError(t, err)
	require.Len(t, s.Lines, 3, "each staff, and both together: %v", s.Lines)
	assert.Equal(t, 13, s.Lines[s.Line].Notes, "the tune has the most notes")
	assert.Equal(t, 2, s.BeatsPerBar)
	assert.InDelta(t, 60, s.BPM, 0.01)
	slow, _ := s.Range()
	assert.InDelta(t, 60, slow, 0.01, "the tempo that begins with the last note is under no other")
	var midi, bars []int
	for _, n := range s.Notes {
		midi, bars = append(midi, n.MIDI), append(bars, n.Bar)
	}
	assert.Equal(t, []int{60, 62, 64, 65, 67, 69, 71, 72, 74, 76, 74, 72, 67}, midi)
	assert.Equal(t, []int{0, 0, 0, 0, 0, 0, 1, 1, 1, 1, 1, 1, 2}, bars)
	assert.InDelta(t, 1.0/3, s.Notes[1].Beat, 1e-9)

	bass := 1 - s.Line
	s, err = Read(raw, bass)
	require.NoError(t, err)
	assert.Len(t, s.Notes, 5)
	assert.Contains(t, s.Told, "In 1 place several notes begin together; the highest is kept.")
}
