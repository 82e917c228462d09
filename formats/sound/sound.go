// Package sound reads and writes recordings: WAV (RIFF, PCM 16, 24 or 32 bit
// and 32-bit float) and FLAC (RFC 9639).
package sound

import (
	"bytes"
	"errors"
	"fmt"
	"time"
)

// A Sound is a whole recording, sample for sample as it was made.
type Sound struct {
	Rate     int       // frames per second
	Bits     int       // per sample, 16 or 24
	Channels [][]int32 // one slice a channel, all of one length
}

// The ways in which a file can fail to be a recording.
var (
	ErrNotSound = errors.New("this is neither a WAV nor a FLAC file; record or export it as one of these")
	ErrEmpty    = errors.New("the file holds no sound; record it again")
	ErrCutOff   = errors.New("the file is cut off before its end; copy or export it again")

	// ErrUnsupported is wrapped by errors that say what kind of file it is.
	ErrUnsupported = errors.New("use WAV or FLAC with 16 or 24 bit, mono or stereo, 8 to 192 kHz")
)

// Bounds on what is read as a recording.
const (
	MinRate = 8000
	MaxRate = 192000
)

// Decode reads a WAV or a FLAC file. It tells them apart by their first bytes.
func Decode(file []byte) (Sound, error) {
	switch {
	case len(file) == 0:
		return Sound{}, ErrEmpty
	case bytes.HasPrefix(file, []byte("fLaC")):
		return checked(decodeFLAC(file))
	case len(file) >= 12 && string(file[:4]) == "RIFF" && string(file[8:12]) == "WAVE":
		return checked(decodeWAV(file))
	}
	return Sound{}, ErrNotSound
}

func checked(s Sound, err error) (Sound, error) {
	switch {
	case err != nil:
		return Sound{}, err
	case s.Frames() == 0:
		return Sound{}, ErrEmpty
	case s.Rate < MinRate || s.Rate > MaxRate:
		return Sound{}, fmt.Errorf("the file has %d samples a second: %w", s.Rate, ErrUnsupported)
	}
	return s, nil
}

// Frames returns the length in samples of one channel.
func (s Sound) Frames() int {
	if len(s.Channels) == 0 {
		return 0
	}
	return len(s.Channels[0])
}

// Duration returns the length in time.
func (s Sound) Duration() time.Duration {
	return time.Duration(float64(s.Frames()) / float64(s.Rate) * float64(time.Second))
}

// Mono returns the mean of all channels, full scale being ±1.
func (s Sound) Mono() []float64 {
	out := make([]float64, s.Frames())
	scale := 1 / (float64(len(s.Channels)) * float64(int64(1)<<(s.Bits-1)))
	for _, ch := range s.Channels {
		for i, v := range ch {
			out[i] += float64(v) * scale
		}
	}
	return out
}

// FromMono makes a 16-bit recording of samples whose full scale is ±1; what is
// louder is clipped.
func FromMono(rate int, samples []float64) Sound {
	ch := make([]int32, len(samples))
	for i, v := range samples {
		ch[i] = int32(max(-32768, min(32767, v*32767)))
	}
	return Sound{Rate: rate, Bits: 16, Channels: [][]int32{ch}}
}
