package main

import (
	"context"
	"fmt"
	"os"

	"github.com/spf13/cobra"

	"manudrill/core/advice"
	"manudrill/core/evenness"
	"manudrill/core/follow"
	"manudrill/core/listen"
	"manudrill/formats/hearing"
)

func onsetsCommand() *cobra.Command {
	return &cobra.Command{
		Use:   "onsets FILE",
		Short: "Print the time of each note in a WAV or FLAC file, in seconds",
		Args:  cobra.ExactArgs(1),
		RunE: func(cmd *cobra.Command, args []string) error {
			h, err := hear(cmd.Context(), args[0])
			if err != nil {
				return err
			}
			for _, n := range listen.Loud(h.Notes) {
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
			h, err := hear(cmd.Context(), args[0])
			if err != nil {
				return err
			}
			return printJSON(cmd.OutOrStdout(), judged(follow.Follow(chart, h.Notes, h.Ticks...)))
		},
	}
	cmd.Flags().StringVar(&chartName, "chart", "", "the chart that was played")
	_ = cmd.MarkFlagRequired("chart") // fails only for a flag that does not exist
	return cmd
}

// told is what analyze prints: the figures and the advice drawn from them.
type told struct {
	evenness.Analysis
	Advice advice.Advice `json:"advice"`
}

func judged(take follow.Take) told {
	a := evenness.Judge(take)
	return told{a, advice.Of(a, take.Chart)}
}

// hear listens to a sound file of any length, which is never held whole, or reads
// what was played from a MIDI file.
func hear(ctx context.Context, name string) (hearing.Heard, error) {
	file, err := os.Open(name)
	if err != nil {
		return hearing.Heard{}, missing(name, err)
	}
	defer file.Close()
	h, err := hearing.Hear(ctx, file, nil)
	if err != nil {
		return h, fmt.Errorf("%s: %w", name, err)
	}
	if len(h.Notes) == 0 {
		return h, fmt.Errorf("%s: no notes can be heard in it; record closer to the guitar or louder", name)
	}
	return h, nil
}
