package listen

import (
	"manudrill/formats/sound"
	"os"
	"path/filepath"
	"testing"
)

func BenchmarkAll(b *testing.B) {
	files, _ := filepath.Glob("/work/shared/takes/*.flac")
	var xs [][]float64
	for _, f := range files {
		raw, _ := os.ReadFile(f)
		s, _ := sound.Decode(raw)
		xs = append(xs, sound.Mono(nil, s.Channels, s.Bits))
	}
	for b.Loop() {
		for _, x := range xs {
			Listen(44100, x)
		}
	}
}
