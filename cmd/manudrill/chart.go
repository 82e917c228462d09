package main

import (
	"encoding/json"
	"fmt"
	"io"

	"github.com/spf13/cobra"

	"manudrill/core/drill/chart"
	"manudrill/core/guitar"
)

func chartCommand() *cobra.Command {
	var bpm float64
	cmd := &cobra.Command{
		Use:   "chart DRILL.json",
		Short: "Write a drill out note by note",
		Args:  cobra.ExactArgs(1),
		RunE: func(cmd *cobra.Command, args []string) error {
			file, err := readDrill(args[0])
			if err != nil {
				return err
			}
			if bpm == 0 {
				bpm = file.Ladder.StartBPM
			}
			c, err := file.Drill.Chart(guitar.Standard(), bpm)
			if err != nil {
				return err
			}
			return printJSON(cmd.OutOrStdout(), c)
		},
	}
	cmd.Flags().Float64Var(&bpm, "bpm", 0, "tempo; the ladder's start where not given")
	return cmd
}

func printJSON(w io.Writer, v any) error {
	enc := json.NewEncoder(w)
	enc.SetIndent("", " ")
	return enc.Encode(v)
}

// readChart reads a chart document.
func readChart(name string) (chart.Chart, error) {
	raw, err := readFile(name)
	if err != nil {
		return chart.Chart{}, err
	}
	var c chart.Chart
	if err := json.Unmarshal(raw, &c); err != nil {
		return chart.Chart{}, fmt.Errorf("%s is no chart: %w", name, err)
	}
	if err := c.Validate(); err != nil {
		return chart.Chart{}, fmt.Errorf("%s cannot be used: %w", name, err)
	}
	return c, nil
}
