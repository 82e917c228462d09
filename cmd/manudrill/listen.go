package main

import (
	"fmt"

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

// hear listens to a whole sound file.
func hear(name string) ([]listen.Note, error) {
	raw, err := readFile(name)
	if err != nil {
		return nil, err
	}
	s, err := sound.Decode(raw)
	if err != nil {
		return nil, fmt.Errorf("%s: %w", name, err)
	}
	notes := listen.Listen(float64(s.Rate), s.Mono())
	if len(notes) == 0 {
		return nil, fmt.Errorf("%s: no notes can be heard in it; record closer to the guitar or louder", name)
	}
	return notes, nil
}
