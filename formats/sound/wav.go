package sound

import (
	"bytes"
	"encoding/binary"
	"fmt"
	"math"
)

// Format tags of the WAVE "fmt " chunk (Multimedia Programming Interface and
// Data Specifications 1.0, and the extensible form of 2001).
const (
	wavePCM        = 1
	waveFloat      = 3
	waveExtensible = 0xFFFE
)

type waveFormat struct {
	Tag        uint16
	Channels   uint16
	Rate       uint32
	ByteRate   uint32
	BlockAlign uint16
	Bits       uint16
}

func decodeWAV(file []byte) (Sound, error) {
	var format waveFormat
	for at := 12; at+8 <= len(file); {
		id, size := string(file[at:at+4]), int(binary.LittleEndian.Uint32(file[at+4:]))
		body := file[at+8:]
		// A header that promises more than the file holds is a file cut off.
		if size > len(body) {
			return Sound{}, ErrCutOff
		}
		body = body[:size]
		switch id {
		case "fmt ":
			var err error
			if format, err = readWaveFormat(body); err != nil {
				return Sound{}, err
			}
		case "data":
			return readWaveData(format, body)
		}
		at += 8 + size + size%2
	}
	return Sound{}, ErrCutOff
}

func readWaveFormat(body []byte) (waveFormat, error) {
	var f waveFormat
	if err := binary.Read(bytes.NewReader(body), binary.LittleEndian, &f); err != nil {
		return f, ErrCutOff
	}
	if f.Tag == waveExtensible && len(body) >= 26 {
		f.Tag = binary.LittleEndian.Uint16(body[24:])
	}
	known := f.Tag == wavePCM && (f.Bits == 16 || f.Bits == 24 || f.Bits == 32) || f.Tag == waveFloat && f.Bits == 32
	if !known {
		return f, fmt.Errorf("the WAV file is of a kind that is not read (format %d, %d bit): %w", f.Tag, f.Bits, ErrUnsupported)
	}
	if f.Channels < 1 || f.Channels > 2 {
		return f, fmt.Errorf("the WAV file has %d channels: %w", f.Channels, ErrUnsupported)
	}
	return f, nil
}

func readWaveData(f waveFormat, data []byte) (Sound, error) {
	if f.Channels == 0 {
		return Sound{}, fmt.Errorf("the WAV file does not say how its sound is written: %w", ErrUnsupported)
	}
	width := int(f.Bits) / 8
	n := len(data) / (width * int(f.Channels))
	s := Sound{Rate: int(f.Rate), Bits: min(24, int(f.Bits)), Channels: make([][]int32, f.Channels)}
	for c := range s.Channels {
		s.Channels[c] = make([]int32, n)
		for i := range n {
			s.Channels[c][i] = waveSample(f, data[(i*int(f.Channels)+c)*width:])
		}
	}
	return s, nil
}

// waveSample reads one sample; 32-bit samples are kept with 24 bits.
func waveSample(f waveFormat, b []byte) int32 {
	switch {
	case f.Tag == waveFloat:
		v := float64(math.Float32frombits(binary.LittleEndian.Uint32(b)))
		if math.IsNaN(v) {
			return 0
		}
		return int32(max(-1, min(1, v)) * (1<<23 - 1))
	case f.Bits == 16:
		return int32(int16(binary.LittleEndian.Uint16(b)))
	case f.Bits == 24:
		return int32(uint32(b[0])<<8|uint32(b[1])<<16|uint32(b[2])<<24) >> 8
	default:
		return int32(binary.LittleEndian.Uint32(b)) >> 8
	}
}

// EncodeWAV writes s as PCM.
func (s Sound) EncodeWAV() []byte {
	width, channels := s.Bits/8, len(s.Channels)
	size := s.Frames() * width * channels
	var out bytes.Buffer
	out.Grow(44 + size)
	le := func(v any) { _ = binary.Write(&out, binary.LittleEndian, v) } // a Buffer does not fail
	out.WriteString("RIFF")
	le(uint32(36 + size))
	out.WriteString("WAVEfmt ")
	le(uint32(16))
	le(waveFormat{wavePCM, uint16(channels), uint32(s.Rate), uint32(s.Rate * width * channels), uint16(width * channels), uint16(s.Bits)})
	out.WriteString("data")
	le(uint32(size))
	out.Write(s.interleaved())
	return out.Bytes()
}

// interleaved returns the samples as PCM: frame by frame, little end first.
func (s Sound) interleaved() []byte {
	width := s.Bits / 8
	raw := make([]byte, 0, s.Frames()*len(s.Channels)*width)
	for i := range s.Frames() {
		for _, ch := range s.Channels {
			for b := range width {
				raw = append(raw, byte(ch[i]>>(8*b)))
			}
		}
	}
	return raw
}
