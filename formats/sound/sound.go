// Package sound reads and writes recordings: WAV (RIFF, PCM 16, 24 or 32 bit
// and 32-bit float) and FLAC (RFC 9639).
package sound

import (
	"bytes"
	"errors"
	"fmt"
	"io"
	"slices"
	"time"

	"manudrill/core/bounds"
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
	ErrDamaged  = errors.New("the file is damaged: what it holds does not agree with its checksums; copy or export it again")
	ErrCutOff   = errors.New("the file is cut off before its end; copy or export it again")

	// ErrUnsupported is wrapped by errors that say what kind of file it is.
	ErrUnsupported = errors.New("use WAV or FLAC with 16 or 24 bit, mono or stereo, 8 to 192 kHz")
)

// Bounds on what is read as a recording.
const (
	MinRate = 8000
	MaxRate = 192000
)

// A Reader reads a recording block by block, so that it need not be held whole.
type Reader struct {
	Rate     int // frames per second
	Bits     int // per sample, 16 or 24
	Channels int
	blocks   blocks
	tagged   bool  // a tag came before the recording
	frames   int64 // read so far
}

// blocks is what each format gives: samples by channel, [io.EOF] after the last.
type blocks interface {
	format() (rate, bits, channels int)
	promised() int64 // frames, as the header tells; 0 where it does not
	next() ([][]int32, error)
}

// Open starts to read a WAV or a FLAC file. It tells them apart by their first
// bytes. A fault further on is told by [Reader.Next].
func Open(src io.Reader) (*Reader, error) {
	start := make([]byte, 12)
	n, err := io.ReadFull(src, start[:4])
	tagged := err == nil && string(start[:3]) == "ID3"
	if tagged {
		if err = skipTag(src); err == nil {
			n, err = io.ReadFull(src, start[:4])
		}
	}
	if err == nil && string(start[:4]) == "RIFF" {
		n, err = io.ReadFull(src, start[4:])
		n += 4
	}
	var b blocks
	switch {
	case n == 0 && errors.Is(err, io.EOF):
		return nil, ErrEmpty
	case err != nil && !errors.Is(err, io.EOF) && !errors.Is(err, io.ErrUnexpectedEOF):
		return nil, err
	case string(start[:n]) == "fLaC":
		b, err = openFLAC(src)
	case n == 12 && string(start[:4]) == "RIFF" && string(start[8:]) == "WAVE":
		b, err = openWAV(src)
	default:
		return nil, ErrNotSound
	}
	if err != nil {
		return nil, err
	}
	r := &Reader{blocks: b, tagged: tagged}
	r.Rate, r.Bits, r.Channels = b.format()
	if r.Rate < MinRate || r.Rate > MaxRate {
		return nil, fmt.Errorf("the file has %d samples a second: %w", r.Rate, ErrUnsupported)
	}
	if b.promised() > r.most() {
		return nil, bounds.ErrTakeTooLong
	}
	return r, nil
}

// most is the frames of the longest take.
func (r *Reader) most() int64 { return int64(bounds.TakeSeconds) * int64(r.Rate) }

// Next returns the next samples by channel, which stay until the next call. It
// returns [io.EOF] after the last, and [bounds.ErrTakeTooLong] after those of the
// longest take.
func (r *Reader) Next() ([][]int32, error) {
	block, err := r.blocks.next()
	if err != nil {
		return nil, err
	}
	if r.frames += int64(len(block[0])); r.frames > r.most() {
		return nil, bounds.ErrTakeTooLong
	}
	return block, nil
}

// FLAC reports whether the recording is FLAC already, with nothing before it.
func (r *Reader) FLAC() bool {
	_, is := r.blocks.(*flacReader)
	return is && !r.tagged
}

// skipTag passes over an ID3v2 tag, of which four bytes have been read: the version's
// second half and flags, then the length of what follows in four times seven bits
// (ID3 tag version 2.4.0, Main Structure, 3.1).
func skipTag(src io.Reader) error {
	var head [6]byte
	if _, err := io.ReadFull(src, head[:]); err != nil {
		return cutOff(err)
	}
	size := int64(0)
	for _, b := range head[2:] {
		size = size<<7 | int64(b&0x7F)
	}
	if _, err := io.CopyN(io.Discard, src, size); err != nil {
		return cutOff(err)
	}
	return nil
}

// Seconds is how long the recording is so far.
func (r *Reader) Seconds() float64 { return float64(r.frames) / float64(r.Rate) }

// Decode reads a whole WAV or FLAC file.
func Decode(file []byte) (Sound, error) {
	r, err := Open(bytes.NewReader(file))
	if err != nil {
		return Sound{}, err
	}
	s := Sound{Rate: r.Rate, Bits: r.Bits, Channels: make([][]int32, r.Channels)}
	for {
		block, err := r.Next()
		switch {
		case errors.Is(err, io.EOF) && s.Frames() == 0:
			return Sound{}, ErrEmpty
		case errors.Is(err, io.EOF):
			return s, nil
		case err != nil:
			return Sound{}, err
		}
		for c, samples := range block {
			s.Channels[c] = append(s.Channels[c], samples...)
		}
	}
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
func (s Sound) Mono() []float64 { return Mono(nil, s.Channels, s.Bits) }

// Mono writes the mean of channels of so many bits a sample, full scale being
// ±1. It makes dst longer where it is too short.
func Mono(dst []float64, channels [][]int32, bits int) []float64 {
	dst = slices.Grow(dst[:0], len(channels[0]))[:len(channels[0])]
	scale := 1 / (float64(len(channels)) * float64(int64(1)<<(bits-1)))
	for i, v := range channels[0] {
		dst[i] = float64(v) * scale
	}
	for _, ch := range channels[1:] {
		for i, v := range ch {
			dst[i] += float64(v) * scale
		}
	}
	return dst
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
