package main

import (
	"bufio"
	"errors"
	"fmt"
	"io"
	"os"

	"github.com/spf13/cobra"

	"manudrill/core/compare"
	"manudrill/core/evenness"
	"manudrill/core/listen"
	"manudrill/formats/midifile"
	"manudrill/formats/sound"
)

func onsetsCommand() *cobra.Command {
	return &cobra.Command{
		Use:   "onsets FILE",
		Short: "Print the time of each note in a WAV or FLAC file, in seconds",
		Args:  cobra.ExactArgs(1),
		RunE: func(cmd *cobra.Command, args []string) error {
			notes, _, err := hear(args[0])
			if err != nil {
				return err
			}
			for _, n := range notes {
				fmt.Fprintf(cmd.OutOrStdout(), "%.5f\n", n.Onset)
			}
			return nil
		},
	}
}

func analyzeCommand() *cobra.Command {
	var chartName string
	cmd := &cobra.Command{
		Use:   "analyze --chart CHART.json FILE",
		Short: "Measure a recording, sound or MIDI, against a chart",
		Args:  cobra.ExactArgs(1),
		RunE: func(cmd *cobra.Command, args []string) error {
			chart, err := readChart(chartName)
			if err != nil {
				return err
			}
			notes, ticks, err := hear(args[0])
			if err != nil {
				return err
			}
			return printJSON(cmd.OutOrStdout(), judged(compare.Compare(chart, notes, ticks...)))
		},
	}
	cmd.Flags().StringVar(&chartName, "chart", "", "the chart that was played")
	_ = cmd.MarkFlagRequired("chart") // fails only for a flag that does not exist
	return cmd
}

// told is what analyze prints: the figures and the advice drawn from them.
type told struct {
	evenness.Analysis
	Advice evenness.Advice `json:"advice"`
}

func judged(take compare.Take) told {
	a := evenness.Judge(take)
	return told{a, evenness.Advise(a, take.Chart)}
}

// hear listens to a sound file of any length, which is never held whole, or reads
// what was played from a MIDI file.
func hear(name string) (notes []listen.Note, ticks []float64, err error) {
	file, err := os.Open(name)
	if err != nil {
		return nil, nil, missing(name, err)
	}
	defer file.Close()
	src := bufio.NewReader(file)
	if start, _ := src.Peek(4); midifile.Is(start) {
		notes, err = played(src)
	} else {
		notes, ticks, err = heard(src)
	}
	if err != nil {
		return nil, nil, fmt.Errorf("%s: %w", name, err)
	}
	if len(notes) == 0 {
		return nil, nil, fmt.Errorf("%s: no notes can be heard in it; record closer to the guitar or louder", name)
	}
	return notes, ticks, nil
}

// played reads a MIDI file as a take.
func played(src io.Reader) ([]listen.Note, error) {
	raw, err := io.ReadAll(src)
	if err != nil {
		return nil, err
	}
	return midifile.Played(raw)
}

// heard listens block by block.
func heard(src io.Reader) (notes []listen.Note, ticks []float64, err error) {
	r, err := sound.Open(src)
	if err != nil {
		return nil, nil, err
	}
	l := listen.New(float64(r.Rate))
	var mono []float64
	for {
		block, err := r.Next()
		if errors.Is(err, io.EOF) {
			return append(notes, l.Close()...), l.Ticks(), nil
		}
		if err != nil {
			return nil, nil, err
		}
		mono = sound.Mono(mono, block, r.Bits)
		notes = append(notes, l.Write(mono)...)
	}
}
