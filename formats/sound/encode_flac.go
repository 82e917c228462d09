package sound

import (
	"bytes"
	"crypto/md5"

	"github.com/mewkiz/flac"
	"github.com/mewkiz/flac/frame"
	"github.com/mewkiz/flac/meta"
)

// blockSize is the number of frames coded together; 4096 is what the format
// suggests for 44.1 kHz.
const blockSize = 4096

// EncodeFLAC writes s without loss.
func (s Sound) EncodeFLAC() ([]byte, error) {
	layout := frame.ChannelsMono
	if len(s.Channels) == 2 {
		layout = frame.ChannelsLR
	}
	var out bytes.Buffer
	enc, err := flac.NewEncoder(&out, &meta.StreamInfo{
		BlockSizeMin: blockSize, BlockSizeMax: blockSize,
		SampleRate: uint32(s.Rate), NChannels: uint8(len(s.Channels)), BitsPerSample: uint8(s.Bits),
		NSamples: uint64(s.Frames()), MD5sum: md5.Sum(s.interleaved()), // by which a decoder sees that all came back
	})
	if err != nil {
		return nil, err
	}
	for at := 0; at < s.Frames(); at += blockSize {
		n := min(blockSize, s.Frames()-at)
		f := &frame.Frame{Header: frame.Header{
			HasFixedBlockSize: true, BlockSize: uint16(n), SampleRate: uint32(s.Rate),
			Channels: layout, BitsPerSample: uint8(s.Bits),
		}}
		for _, ch := range s.Channels {
			f.Subframes = append(f.Subframes, &frame.Subframe{
				SubHeader: frame.SubHeader{Pred: frame.PredVerbatim}, // the encoder looks for a better one
				Samples:   ch[at : at+n], NSamples: n,
			})
		}
		if err := enc.WriteFrame(f); err != nil {
			return nil, err
		}
	}
	return out.Bytes(), enc.Close()
}
