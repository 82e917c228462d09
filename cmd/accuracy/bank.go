package main

import (
	"bufio"
	"bytes"
	"encoding/binary"
	"errors"
	"fmt"
	"io"
	"math"
	"os"
	"os/exec"
	"path/filepath"
	"slices"

	"manudrill/core/guitar"
	"manudrill/formats/sound"
)

// rate is the samples a second at which takes are put together.
const rate = 44100

// font holds the recorded instruments (Debian's fluid-soundfont-gm).
const font = "/usr/share/sounds/sf2/FluidR3_GM.sf2"

// A bank holds recorded notes of one instrument, each cut at its first sound.
type bank map[struck][]float64

// A struck note is a key of the instrument and how hard it was struck, as MIDI
// counts both.
type struck struct{ key, velocity int }

// The recorded notes: every key a guitar has, softly, plainly and hard.
const lowestKey, highestKey = 33, 93

var velocities = []int{45, 80, 112}

// Each note is recorded alone, in milliseconds.
const (
	soundsFor  = 1900
	silenceFor = 300
)

// allSoundOff is the controller that stops a string at once (MIDI 1.0, channel mode
// messages): otherwise it rings into the next.
const allSoundOff = 120

// record plays all notes of a General MIDI program alone, and cuts them.
func record(program int) (bank, error) {
	var notes []struck
	for key := lowestKey; key <= highestKey; key++ {
		for _, v := range velocities {
			notes = append(notes, struck{key, v})
		}
	}
	score := midi{{0, []byte{0xC0, byte(program)}}}
	for i, n := range notes {
		at := i * (soundsFor + silenceFor)
		score = append(score, event{at, []byte{0x90, byte(n.key), byte(n.velocity)}}, event{at + soundsFor, []byte{0x80, byte(n.key), 0}}, event{at + soundsFor, []byte{0xB0, allSoundOff, 0}})
	}
	x, err := score.rendered()
	if err != nil {
		return nil, err
	}
	b := bank{}
	for i, n := range notes {
		from := i * (soundsFor + silenceFor) * rate / 1000
		b[n] = cut(x[from:from+soundsFor*rate/1000], guitar.Frequency(float64(n.key)))
	}
	return b, nil
}

// A recorded note begins where a period of it is nearly as loud as any of its first
// tenth of a second, and there where the first few milliseconds are: before that there
// is the noise of the pick on the string, for up to 30 ms, and of the recording.
const (
	nearPeriodDB = -3
	nearDB       = -9
	loudSeconds  = 0.100
	grainSeconds = 0.0025
)

// cut drops what comes before the note itself, which then rises within a millisecond.
func cut(x []float64, hz float64) []float64 {
	first := slices.IndexFunc(x, func(v float64) bool { return v != 0 })
	if first < 0 {
		return x
	}
	x = x[first:]
	grain := int(math.Round(grainSeconds * rate))
	x = x[loudFrom(x, int(rate/hz), nearPeriodDB):]
	x = slices.Clone(x[loudFrom(x, grain, nearDB)+grain*3/4:])
	for i := range rate / 1000 {
		x[i] *= risen(float64(i)/rate, 0.001)
	}
	return x
}

// loudFrom is where so many samples of a note are first as loud as any of its
// beginning, but for some decibels.
func loudFrom(x []float64, span int, db float64) int {
	sums := make([]float64, len(x)+1)
	for i, v := range x {
		sums[i+1] = sums[i] + v*v
	}
	power := func(at int) float64 { return sums[at+span] - sums[at] }
	loudest := 0.0
	for at := 0; at+span <= min(len(x), int(math.Round(loudSeconds*rate))); at++ {
		loudest = max(loudest, power(at))
	}
	at := 0
	for at+span < len(x) && power(at) < loudest*amplitude(2*db) {
		at++
	}
	return at
}

func amplitude(db float64) float64 { return math.Pow(10, db/20) }

// A midi score is events in order, timed in milliseconds.
type midi []event

type event struct {
	at    int // ms
	bytes []byte
}

// file is the score as a Standard MIDI File of one track, a tick a millisecond.
func (m midi) file() []byte {
	var track bytes.Buffer
	track.Write([]byte{0, 0xFF, 0x51, 3, 0x0F, 0x42, 0x40}) // a quarter lasts 1 s
	now := 0
	for _, e := range m {
		track.Write(variable(e.at - now))
		track.Write(e.bytes)
		now = e.at
	}
	track.Write([]byte{0, 0xFF, 0x2F, 0})
	out := []byte("MThd\x00\x00\x00\x06\x00\x00\x00\x01\x03\xE8MTrk")
	out = binary.BigEndian.AppendUint32(out, uint32(track.Len()))
	return append(out, track.Bytes()...)
}

// variable is a number in groups of seven bits, the highest first.
func variable(n int) []byte {
	out := []byte{byte(n & 0x7F)}
	for n >>= 7; n > 0; n >>= 7 {
		out = append([]byte{byte(n&0x7F) | 0x80}, out...)
	}
	return out
}

// rendered is the score's sound by FluidSynth, dry and mono.
func (m midi) rendered() (x []float64, err error) {
	err = inFolder(func(folder string) error {
		score, wav := filepath.Join(folder, "score.mid"), filepath.Join(folder, "score.wav")
		if err := os.WriteFile(score, m.file(), 0o600); err != nil {
			return err
		}
		if err := command("fluidsynth", "-q", "-n", "-i", "-R", "0", "-C", "0", "-g", "0.6", "-r", fmt.Sprint(rate), "-F", wav, font, score); err != nil {
			return err
		}
		x, err = readMono(wav)
		return err
	})
	return x, err
}

// inFolder does something in a folder that is gone afterwards.
func inFolder(do func(folder string) error) error {
	folder, err := os.MkdirTemp("", "accuracy")
	if err != nil {
		return err
	}
	defer os.RemoveAll(folder)
	return do(folder)
}

// command runs a program that must be installed.
func command(name string, args ...string) error {
	if out, err := exec.Command(name, args...).CombinedOutput(); err != nil {
		return fmt.Errorf("%s: %w: %s; 'make accuracy' installs what it needs", name, err, out)
	}
	return nil
}

// readMono reads a file at the takes' rate.
func readMono(file string) ([]float64, error) {
	opened, err := os.Open(file)
	if err != nil {
		return nil, err
	}
	defer opened.Close()
	r, err := sound.Open(bufio.NewReader(opened))
	if err != nil {
		return nil, err
	}
	var x, mono []float64
	for {
		block, err := r.Next()
		if errors.Is(err, io.EOF) {
			return resampled(x, float64(r.Rate), rate), nil
		}
		if err != nil {
			return nil, err
		}
		mono = sound.Mono(mono, block, r.Bits)
		x = append(x, mono...)
	}
}
