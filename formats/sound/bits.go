package sound

import (
	"encoding/binary"
	"io"
	"math/bits"
)

// A bitReader reads big-endian bits from a stream. It keeps what has been read
// since the last mark, over which a checksum can be taken.
type bitReader struct {
	src  io.Reader
	buf  []byte // read so far and not yet dropped, with 8 spare bytes behind
	held int    // bytes of buf that are the stream's
	pos  int    // in bits from buf[0]
	from int    // the mark, in bytes
	err  error  // io.EOF at the end of the stream; another where it cannot be read on
}

const refill = 64 << 10

// longestFrame is the most bytes that are kept for a checksum: a frame of 65,535
// samples of two channels, as they are, has half of it.
const longestFrame = 1 << 20

func newBitReader(src io.Reader) *bitReader { return &bitReader{src: src, buf: make([]byte, 8)} }

// load returns the next bits, at least 57 of them, the first one highest. Past
// the end of the stream it is all ones, which ends any run of zeros.
func (b *bitReader) load() uint64 {
	at := b.pos >> 3
	if at+8 > b.held && b.err == nil {
		b.fill()
		at = b.pos >> 3
	}
	if at >= b.held {
		return 1<<64 - 1
	}
	return binary.BigEndian.Uint64(b.buf[at:]) << (b.pos & 7)
}

// fill drops what lies before the mark and reads on.
func (b *bitReader) fill() {
	if b.held-b.from > longestFrame {
		b.err = ErrDamaged
		return
	}
	kept := copy(b.buf, b.buf[b.from:b.held])
	b.pos -= 8 * b.from
	b.from = 0
	b.buf = append(b.buf[:kept], make([]byte, refill+8)...)
	n, err := io.ReadAtLeast(b.src, b.buf[kept:kept+refill], 8)
	if err == io.ErrUnexpectedEOF {
		err = io.EOF
	}
	b.held, b.err = kept+n, err
	clear(b.buf[b.held:])
}

// read returns the next n bits, 0 to 32 of them.
func (b *bitReader) read(n int) uint32 {
	v := b.load() >> (64 - n)
	b.pos += n
	return uint32(v)
}

// signed returns the next n bits as a number in two's complement.
func (b *bitReader) signed(n int) int32 {
	if n == 0 {
		return 0
	}
	return int32(b.read(n)<<(32-n)) >> (32 - n)
}

// unary counts the zeros before the next one.
func (b *bitReader) unary() int {
	n := 0
	for {
		v := b.load()
		if zeros := bits.LeadingZeros64(v); zeros < 57 {
			b.pos += zeros + 1
			return n + zeros
		}
		b.pos += 56
		n += 56
	}
}

// rice reads residuals: the quotient in unary, k bits below it, the sign folded
// into the lowest. It is the innermost loop of reading FLAC: bits are taken from a
// word for as long as they suffice.
func (b *bitReader) rice(out []int32, k int) {
	low := uint(k) & 31
	word, left := uint64(0), uint(0) // the next bits, the first one highest, and how many they are
	for i := range out {
		zeros := uint(bits.LeadingZeros64(word))
		if zeros+1+low > left {
			word, left = b.load(), 57
			if zeros = uint(bits.LeadingZeros64(word)); zeros+1+low > left {
				out[i] = unfolded(uint32(b.unary())<<k | b.read(k))
				left = 0
				continue
			}
		}
		word <<= (zeros + 1) & 63
		out[i] = unfolded(uint32(zeros<<low | uint(word>>1>>(63-low))))
		word <<= low
		left -= zeros + 1 + low
		b.pos += int(zeros + 1 + low)
	}
}

// unfolded takes the sign out of the lowest bit.
func unfolded(v uint32) int32 { return int32(v>>1) ^ -int32(v&1) }

// align goes on to the next whole byte.
func (b *bitReader) align() { b.pos = (b.pos + 7) &^ 7 }

// mark starts what [bitReader.marked] returns at the byte here.
func (b *bitReader) mark() { b.from = b.pos >> 3 }

// marked returns the bytes from the mark to here.
func (b *bitReader) marked() []byte { return b.buf[b.from:min(b.held, b.pos>>3)] }

// ended reports whether no byte is left; over, whether more was read than there
// was.
func (b *bitReader) ended() bool {
	b.load()
	return b.pos>>3 >= b.held
}

func (b *bitReader) over() bool { return b.pos > 8*b.held }
