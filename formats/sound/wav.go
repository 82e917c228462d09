package sound

import (
	"bytes"
	"encoding/binary"
	"errors"
	"fmt"
	"io"
	"math"
	"slices"
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

// A wavReader reads the data chunk of a WAVE file.
type wavReader struct {
	src   io.Reader
	is    waveFormat
	left  int64 // bytes of the data chunk not yet read
	open  bool  // the header does not tell how many: all to the end of the file
	raw   []byte
	block [][]int32
}

// openWAV reads up to the data chunk; the RIFF header has been read.
func openWAV(src io.Reader) (*wavReader, error) {
	w := &wavReader{src: src}
	var head [8]byte
	for {
		if _, err := io.ReadFull(src, head[:]); err != nil {
			return nil, cutOff(err)
		}
		size := int64(binary.LittleEndian.Uint32(head[4:]))
		switch string(head[:4]) {
		case "fmt ":
			body := make([]byte, min(size, 40))
			if _, err := io.ReadFull(src, body); err != nil {
				return nil, cutOff(err)
			}
			var err error
			if w.is, err = readWaveFormat(body); err != nil {
				return nil, err
			}
			size -= int64(len(body))
		case "data":
			if w.is.Channels == 0 {
				return nil, fmt.Errorf("the WAV file does not say how its sound is written: %w", ErrUnsupported)
			}
			w.left = size - size%w.frame()
			if w.open = size == 0 || size >= unknownSize; w.open {
				w.left = math.MaxInt64
			}
			w.block = make([][]int32, w.is.Channels)
			return w, nil
		}
		if _, err := io.CopyN(io.Discard, src, size+size%2); err != nil {
			return nil, cutOff(err)
		}
	}
}

// cutOff names the end of a file that comes too early.
func cutOff(err error) error {
	if errors.Is(err, io.EOF) || errors.Is(err, io.ErrUnexpectedEOF) {
		return ErrCutOff
	}
	return err
}

// frame is the bytes of one sample of all channels.
func (w *wavReader) frame() int64 { return int64(w.is.Bits/8) * int64(w.is.Channels) }

// format tells the kept bits: 32-bit samples are kept with 24.
func (w *wavReader) format() (rate, bits, channels int) {
	return int(w.is.Rate), min(24, int(w.is.Bits)), int(w.is.Channels)
}

func (w *wavReader) promised() int64 {
	if w.open {
		return 0
	}
	return w.left / w.frame()
}

// unknownSize is from what length on a data chunk has none: a program that writes into
// a stream does not know it and says the most there can be, with or without room for a
// header. A recorder that died says 0 (common practice).
const unknownSize = 0x7FFFF000

// next reads up to blockSize frames. A header that promises more than the file
// holds is a file cut off.
func (w *wavReader) next() ([][]int32, error) {
	n := min(blockSize, w.left/w.frame())
	if n == 0 {
		return nil, io.EOF
	}
	w.raw = slices.Grow(w.raw[:0], int(n*w.frame()))[:n*w.frame()]
	read, err := io.ReadFull(w.src, w.raw)
	switch {
	case w.open && errors.Is(err, io.ErrUnexpectedEOF):
		w.raw = w.raw[:int64(read)-int64(read)%w.frame()]
		w.left = 0
	case w.open && errors.Is(err, io.EOF):
		return nil, io.EOF
	case err != nil:
		return nil, cutOff(err)
	}
	w.left = max(0, w.left-int64(len(w.raw)))
	width := int(w.is.Bits) / 8
	for c := range w.block {
		w.block[c] = w.block[c][:0]
		for at := c * width; at < len(w.raw); at += int(w.frame()) {
			w.block[c] = append(w.block[c], waveSample(w.is, w.raw[at:]))
		}
	}
	return w.block, nil
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
