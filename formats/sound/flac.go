package sound

import (
	"bytes"
	"crypto/md5"
	"errors"
	"fmt"
	"io"

	"github.com/mewkiz/flac"
	"github.com/mewkiz/flac/frame"
	"github.com/mewkiz/flac/meta"
)

func decodeFLAC(file []byte) (Sound, error) {
	stream, err := flac.New(bytes.NewReader(file))
	if err != nil {
		return Sound{}, ErrCutOff
	}
	info := stream.Info
	s := Sound{Rate: int(info.SampleRate), Bits: int(info.BitsPerSample), Channels: make([][]int32, info.NChannels)}
	if n := len(s.Channels); n > 2 {
		return Sound{}, fmt.Errorf("the FLAC file has %d channels: %w", n, ErrUnsupported)
	}
	if s.Bits != 16 && s.Bits != 24 {
		return Sound{}, fmt.Errorf("the FLAC file has %d bits a sample: %w", s.Bits, ErrUnsupported)
	}
	for {
		f, err := stream.ParseNext()
		if errors.Is(err, io.EOF) {
			break
		}
		if err != nil || len(f.Subframes) != len(s.Channels) {
			return Sound{}, ErrCutOff
		}
		for c, sub := range f.Subframes {
			s.Channels[c] = append(s.Channels[c], sub.Samples...)
		}
	}
	if info.NSamples > 0 && uint64(s.Frames()) < info.NSamples {
		return Sound{}, ErrCutOff
	}
	return s, nil
}

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
