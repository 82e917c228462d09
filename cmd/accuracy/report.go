package main

import (
	"cmp"
	"encoding/json"
	"errors"
	"fmt"
	"io"
	"maps"
	"os"
	"path/filepath"
	"slices"
	"strings"

	"manudrill/formats/sound"
)

// wrong keeps what was told wrong of a take at some second.
func (s *tally) wrong(t *take, at float64, format string, args ...any) {
	s.wrongs = append(s.wrongs, fmt.Sprintf("%s (guitar %d, %s), %.2f s: %s", t.name, t.guitar, t.chart.Name, at, fmt.Sprintf(format, args...)))
}

// report writes a table of conditions, the worst first.
func report(out io.Writer, scores map[string]*tally, verbose bool) {
	names := slices.SortedFunc(maps.Keys(scores), func(a, b string) int {
		return cmp.Or(cmp.Compare(scores[a].mistakesF(), scores[b].mistakesF()), cmp.Compare(scores[a].onsetF(), scores[b].onsetF()), cmp.Compare(a, b))
	})
	total := &tally{}
	fmt.Fprintln(out, "| condition | takes | notes | mistakes F | false in 1,000 | notes right | onset F | timing sd, worst ms | level dB | weakest |")
	fmt.Fprintln(out, "|---|---|---|---|---|---|---|---|---|---|")
	for _, name := range names {
		row(out, name, scores[name])
		total.merge(scores[name])
	}
	row(out, "all", total)
	if verbose {
		slices.Sort(total.wrongs)
		for _, w := range total.wrongs {
			fmt.Fprintln(out, w)
		}
	}
}

func row(out io.Writer, name string, s *tally) {
	fmt.Fprintf(out, "| %s | %d | %d | %.2f | %.1f | %.3f | %.3f | %.1f, %.0f | %.1f | %d of %d |\n", name, s.takes, s.notes,
		s.mistakesF(), s.falseMistakes(), s.rightShare(), s.onsetF(), s.timingSD(), s.worstMs(), s.levelError(), s.weakHit, s.weakTrue)
}

// writeTo writes the take as three files: the sound, its chart and its truth.
func (t *take) writeTo(folder string) error {
	type note struct {
		T       float64 `json:"t"`
		Index   *int    `json:"index"`
		MIDI    int     `json:"midi"`
		LevelDB float64 `json:"level_db"`
	}
	type who struct {
		Weak []int `json:"weak,omitempty"`
	}
	truth := struct {
		Played []note `json:"played"`
		Player who    `json:"player"`
	}{}
	for _, p := range t.played {
		n := note{p.t, nil, p.midi, p.levelDB}
		if p.index >= 0 {
			n.Index = &p.index
		}
		truth.Played = append(truth.Played, n)
	}
	flac, err := sound.FromMono(int(t.rate), t.samples).EncodeFLAC()
	if err != nil {
		return err
	}
	chart, err1 := json.Marshal(t.chart)
	told, err2 := json.Marshal(truth)
	base := filepath.Join(folder, strings.ReplaceAll(strings.ReplaceAll(t.name, ",", ""), " ", "-"))
	return errors.Join(err1, err2, os.WriteFile(base+".flac", flac, 0o600), os.WriteFile(base+".chart.json", chart, 0o600), os.WriteFile(base+".truth.json", told, 0o600))
}
