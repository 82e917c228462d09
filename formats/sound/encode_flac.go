package sound

import (
	"encoding/binary"
	"errors"
	"io"
	"math"

	"github.com/mewkiz/flac"
	"github.com/mewkiz/flac/frame"
	"github.com/mewkiz/flac/meta"
)

// blockSize is the number of frames coded together; 4096 is what the format
// suggests for 44.1 kHz.
const blockSize = 4096

// A FLACWriter writes a recording without loss as it comes, holding one block.
type FLACWriter struct {
	to      io.WriteSeeker
	enc     *flac.Encoder
	rate    int
	bits    int
	pending [][]int32 // samples by channel that do not fill a block yet
}

// NewFLACWriter begins a recording of so many frames a second, bits a sample and
// channels, 1 or 2. What is told at its start is known at its end only: to is
// written again from its start by Close.
func NewFLACWriter(to io.WriteSeeker, rate, bits, channels int) (*FLACWriter, error) {
	w := &FLACWriter{to: to, rate: rate, bits: bits, pending: make([][]int32, channels)}
	var err error
	w.enc, err = flac.NewEncoder(onlyWriteSeeker{to}, &meta.StreamInfo{
		BlockSizeMin: blockSize, BlockSizeMax: blockSize,
		SampleRate: uint32(rate), NChannels: uint8(channels), BitsPerSample: uint8(bits),
	})
	return w, err
}

// onlyWriteSeeker keeps the encoder from closing what it writes to.
type onlyWriteSeeker struct{ io.WriteSeeker }

// Write adds samples by channel, as [Reader.Next] gives them.
func (w *FLACWriter) Write(block [][]int32) error {
	for at := 0; at < len(block[0]); {
		n := min(blockSize-len(w.pending[0]), len(block[0])-at)
		for c, samples := range block {
			w.pending[c] = append(w.pending[c], samples[at:at+n]...)
		}
		at += n
		if len(w.pending[0]) < blockSize {
			break
		}
		if err := w.frame(); err != nil {
			return err
		}
	}
	return nil
}

// frame writes the pending samples.
func (w *FLACWriter) frame() error {
	n := len(w.pending[0])
	layout := frame.ChannelsMono
	if len(w.pending) == 2 {
		layout = frame.ChannelsLR
	}
	f := &frame.Frame{Header: frame.Header{
		HasFixedBlockSize: true, BlockSize: uint16(n), SampleRate: uint32(w.rate),
		Channels: layout, BitsPerSample: uint8(w.bits),
	}}
	for _, samples := range w.pending {
		f.Subframes = append(f.Subframes, &frame.Subframe{SubHeader: predictedBy(samples), Samples: samples, NSamples: n})
	}
	if err := w.enc.WriteFrame(f); err != nil {
		return err
	}
	for c := range w.pending {
		w.pending[c] = w.pending[c][:0]
	}
	return nil
}

// Fixed predictors have orders up to 4, and Rice parameters four bits, of which all ones
// mean something else (RFC 9639, 9.2.5 and 9.2.7).
const (
	highestOrder = 4
	highestRice  = 14
)

// predictedBy is how samples are coded: by the fixed predictor that leaves the least, as
// differences of neighbours taken so many times, and the Rice parameter that suits its
// mean. What no parameter suits is left to the encoder, whose search goes through all of
// them for each predictor and takes ten times as long.
func predictedBy(samples []int32) frame.SubHeader {
	unknown := frame.SubHeader{Pred: frame.PredVerbatim}
	if len(samples) <= highestOrder {
		return unknown
	}
	var sums [highestOrder + 1]int64
	var last [highestOrder]int64 // the differences at the sample before
	for i, v := range samples {
		d := int64(v)
		for order := range sums {
			if i >= highestOrder {
				sums[order] += max(d, -d)
			}
			if order < highestOrder {
				d, last[order] = d-last[order], d
			}
		}
	}
	order := 0
	for o, sum := range sums {
		if sum < sums[order] {
			order = o
		}
	}
	rice := riceFor(2 * float64(sums[order]) / float64(len(samples)-highestOrder)) // signs are folded in
	if rice > highestRice {
		return unknown
	}
	return frame.SubHeader{
		Pred: frame.PredFixed, Order: order, ResidualCodingMethod: frame.ResidualCodingMethodRice1,
		RiceSubframe: &frame.RiceSubframe{Partitions: []frame.RicePartition{{Param: uint(rice)}}},
	}
}

// riceFor is the parameter k for which numbers of a mean have the least bits, 1 + k + mean/2^k
// each.
func riceFor(mean float64) int {
	return max(0, int(math.Round(math.Log2(max(1, mean*math.Ln2)))))
}

// Close writes what is pending, and the header with the length and the checksum of
// all samples, by which a decoder sees that all came back.
func (w *FLACWriter) Close() error {
	if len(w.pending[0]) > 0 {
		if err := w.frame(); err != nil {
			return err
		}
	}
	if err := w.enc.Close(); err != nil {
		return err
	}
	// The encoder counts the last block, which may be shorter than the format lets
	// the others be (RFC 9639, 8.2).
	if _, err := w.to.Seek(8, io.SeekStart); err != nil {
		return err
	}
	if err := binary.Write(w.to, binary.BigEndian, [2]uint16{blockSize, blockSize}); err != nil {
		return err
	}
	_, err := w.to.Seek(0, io.SeekEnd)
	return err
}

// EncodeFLAC writes s without loss.
func (s Sound) EncodeFLAC() ([]byte, error) {
	var out memory
	w, err := NewFLACWriter(&out, s.Rate, s.Bits, len(s.Channels))
	if err != nil {
		return nil, err
	}
	err = errors.Join(w.Write(s.Channels), w.Close())
	return out.bytes, err
}

// A memory is a file that is held whole.
type memory struct {
	bytes []byte
	at    int
}

func (m *memory) Write(p []byte) (int, error) {
	if grown := m.at + len(p); grown > len(m.bytes) {
		m.bytes = append(m.bytes, make([]byte, grown-len(m.bytes))...)
	}
	m.at += copy(m.bytes[m.at:], p)
	return len(p), nil
}

func (m *memory) Seek(offset int64, whence int) (int64, error) {
	switch whence {
	case io.SeekCurrent:
		offset += int64(m.at)
	case io.SeekEnd:
		offset += int64(len(m.bytes))
	}
	m.at = int(offset)
	return offset, nil
}
