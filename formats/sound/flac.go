package sound

import (
	"errors"
	"fmt"
	"io"
)

// A flacReader reads FLAC as RFC 9639 defines it. Numbers of sections are those
// of the RFC.
type flacReader struct {
	bits  *bitReader
	info  flacInfo
	read  uint64 // frames of samples so far
	block [][]int32
}

// flacInfo is what the streaminfo block tells (8.2).
type flacInfo struct {
	rate, channels, bits int
	samples              uint64 // 0 where it is not known
}

// openFLAC reads the stream's metadata; the marker has been read.
func openFLAC(src io.Reader) (*flacReader, error) {
	f := &flacReader{bits: newBitReader(src)}
	for last, first := false, true; !last; first = false {
		last = f.bits.read(1) == 1
		kind, size := f.bits.read(7), int(f.bits.read(24))
		if first && (kind != 0 || size != 34) {
			return nil, ErrDamaged
		}
		if first {
			f.info = f.streamInfo()
		} else if err := f.skip(size); err != nil {
			return nil, err
		}
		if f.bits.over() {
			return nil, ErrCutOff
		}
	}
	switch i := f.info; {
	case i.channels > 2:
		return nil, fmt.Errorf("the FLAC file has %d channels: %w", i.channels, ErrUnsupported)
	case i.bits != 16 && i.bits != 24:
		return nil, fmt.Errorf("the FLAC file has %d bits a sample: %w", i.bits, ErrUnsupported)
	}
	f.block = make([][]int32, f.info.channels)
	return f, nil
}

func (f *flacReader) promised() int64 { return int64(f.info.samples) }

func (f *flacReader) streamInfo() flacInfo {
	b := f.bits
	b.pos += 16 + 16 + 24 + 24 // sizes of blocks and frames
	i := flacInfo{rate: int(b.read(20)), channels: int(b.read(3)) + 1, bits: int(b.read(5)) + 1}
	i.samples = uint64(b.read(4))<<32 | uint64(b.read(32))
	b.pos += 128 // MD5 of the sound
	return i
}

// skip passes over so many bytes of metadata, such as pictures.
func (f *flacReader) skip(size int) error {
	for ; size > 0; size-- {
		if f.bits.ended() {
			return ErrCutOff
		}
		f.bits.pos += 8
		f.bits.mark()
	}
	return nil
}

func (f *flacReader) format() (rate, bits, channels int) {
	return f.info.rate, f.info.bits, f.info.channels
}

// next reads one frame (9): its header, one subframe a channel, its checksum.
func (f *flacReader) next() ([][]int32, error) {
	b := f.bits
	b.mark()
	if f.info.samples > 0 && f.read >= f.info.samples || f.info.samples == 0 && b.ended() {
		return nil, io.EOF
	}
	h, err := f.frameHeader()
	if err != nil {
		return nil, err
	}
	for c := range f.block {
		if cap(f.block[c]) < h.size {
			f.block[c] = make([]int32, h.size)
		}
		f.block[c] = f.block[c][:h.size]
		if err := f.subframe(f.block[c], f.info.bits+h.extraBit(c)); err != nil {
			return nil, err
		}
	}
	b.align()
	sum := crc16(b.marked())
	if uint16(b.read(16)) != sum {
		return nil, f.broken()
	}
	h.apart(f.block)
	f.read += uint64(h.size)
	return f.block, nil
}

// broken tells a stream that ends too early from one that is wrong.
func (f *flacReader) broken() error {
	if err := f.bits.err; err != nil && !errors.Is(err, io.EOF) {
		return err
	}
	if f.bits.over() || f.bits.ended() {
		return ErrCutOff
	}
	return ErrDamaged
}

// A frameHeader is what is needed of it (9.1).
type frameHeader struct {
	size   int // samples a channel
	stereo int // the channel assignment: 8 left and side, 9 side and right, 10 middle and side
}

func (f *flacReader) frameHeader() (frameHeader, error) {
	b := f.bits
	if b.ended() || b.read(15) != 0x7ffc {
		return frameHeader{}, f.broken()
	}
	b.pos++ // fixed or variable block size: the numbers are not needed
	size, rate := int(b.read(4)), b.read(4)
	h := frameHeader{stereo: int(b.read(4))}
	depth := b.read(3)
	b.pos++
	for lead := b.read(8); lead&0xc0 == 0xc0; lead <<= 1 { // the coded number (9.1.5)
		b.pos += 8
	}
	h.size = blockSizeOf(size, b)
	switch rate {
	case 12:
		b.pos += 8
	case 13, 14:
		b.pos += 16
	}
	sum := crc8(b.marked())
	channels := 2
	if h.stereo < 8 {
		channels = h.stereo + 1
	}
	agrees := channels == f.info.channels && h.stereo <= 10 && (depth == 0 || depthOf[depth] == f.info.bits)
	if uint8(b.read(8)) != sum || h.size == 0 || !agrees {
		return h, f.broken()
	}
	return h, nil
}

// depthOf is the bits a sample by its code (9.1.4).
var depthOf = [8]int{1: 8, 2: 12, 4: 16, 5: 20, 6: 24, 7: 32}

// blockSizeOf is the samples of a frame by the code (9.1.1), some told at the
// end of the header.
func blockSizeOf(code int, b *bitReader) int {
	switch {
	case code == 1:
		return 192
	case code >= 2 && code <= 5:
		return 576 << (code - 2)
	case code == 6:
		return int(b.read(8)) + 1
	case code == 7:
		return int(b.read(16)) + 1
	case code >= 8:
		return 256 << (code - 8)
	}
	return 0
}

// extraBit is the one more bit that a side channel has.
func (h frameHeader) extraBit(channel int) int {
	if h.stereo == 9 && channel == 0 || (h.stereo == 8 || h.stereo == 10) && channel == 1 {
		return 1
	}
	return 0
}

// apart makes left and right of a stereo pair coded otherwise (4.2).
func (h frameHeader) apart(block [][]int32) {
	if h.stereo < 8 {
		return
	}
	left, right := block[0], block[1]
	for i, a := range left {
		b := right[i]
		switch h.stereo {
		case 8:
			right[i] = a - b
		case 9:
			left[i] = a + b
		case 10:
			middle := 2*a + b&1
			left[i], right[i] = (middle+b)>>1, (middle-b)>>1
		}
	}
}
