package main

import (
	"encoding/json"
	"fmt"
	"os"

	"github.com/spf13/cobra"

	"manudrill/core/simulate"
	"manudrill/formats/sound"
)

func simulateCommand() *cobra.Command {
	var chartName, playerName, out string
	cmd := &cobra.Command{
		Use:   "simulate --chart CHART.json --player PLAYER.json --out FILE.wav",
		Short: "Let the simulated player play a chart",
		Args:  cobra.NoArgs,
		RunE: func(*cobra.Command, []string) error {
			chart, err := readChart(chartName)
			if err != nil {
				return err
			}
			raw, err := readFile(playerName)
			if err != nil {
				return err
			}
			var player simulate.Player
			if err := json.Unmarshal(raw, &player); err != nil {
				return fmt.Errorf("%s is no player: %w", playerName, err)
			}
			if err := player.Validate(); err != nil {
				return err
			}
			_, samples, err := player.Take(chart)
			if err != nil {
				return err
			}
			return os.WriteFile(out, sound.FromMono(simulate.Rate, samples).EncodeWAV(), 0o644)
		},
	}
	for flag, into := range map[string]*string{"chart": &chartName, "player": &playerName, "out": &out} {
		cmd.Flags().StringVar(into, flag, "", flag+" file")
		_ = cmd.MarkFlagRequired(flag) // fails only for a flag that does not exist
	}
	return cmd
}
