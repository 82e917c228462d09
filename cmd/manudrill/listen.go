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
	"manudrill/formats/sound"
)

func onsetsCommand() *cobra.Command {
	return &cobra.Command{
		Use:   "onsets FILE",
		Short: "Print the time of each note in a WAV or FLAC file, in seconds",
		Args:  cobra.ExactArgs(1),
		RunE: func(cmd *cobra.Command, args []string) error {
			notes, err := hear(args[0])
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
		Short: "Measure a recording against a chart",
		Args:  cobra.ExactArgs(1),
		RunE: func(cmd *cobra.Command, args []string) error {
			chart, err := readChart(chartName)
			if err != nil {
				return err
			}
			notes, err := hear(args[0])
			if err != nil {
				return err
			}
			return printJSON(cmd.OutOrStdout(), evenness.Judge(compare.Compare(chart, notes)))
		},
	}
	cmd.Flags().StringVar(&chartName, "chart", "", "the chart that was played")
	_ = cmd.MarkFlagRequired("chart") // fails only for a flag that does not exist
	return cmd
}

// hear listens to a sound file of any length, which is never held whole.
func hear(name string) ([]listen.Note, error) {
	file, err := os.Open(name)
	if err != nil {
		return nil, missing(name, err)
	}
	defer file.Close()
	notes, err := heard(bufio.NewReader(file))
	if err != nil {
		return nil, fmt.Errorf("%s: %w", name, err)
	}
	if len(notes) == 0 {
		return nil, fmt.Errorf("%s: no notes can be heard in it; record closer to the guitar or louder", name)
	}
	return notes, nil
}

// heard listens block by block.
func heard(src io.Reader) ([]listen.Note, error) {
	r, err := sound.Open(src)
	if err != nil {
		return nil, err
	}
	l := listen.New(float64(r.Rate))
	var notes []listen.Note
	var mono []float64
	for {
		block, err := r.Next()
		if errors.Is(err, io.EOF) {
			return append(notes, l.Close()...), nil
		}
		if err != nil {
			return nil, err
		}
		mono = sound.Mono(mono, block, r.Bits)
		notes = append(notes, l.Write(mono)...)
	}
}
