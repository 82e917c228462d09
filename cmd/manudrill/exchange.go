package main

import (
	"encoding/json"
	"errors"
	"fmt"
	"os"
	"strings"

	"github.com/spf13/cobra"

	"manudrill/core/guitar"
	"manudrill/core/words"
	"manudrill/formats/drillfile"
	"manudrill/formats/exchange"
)

func exportCommand() *cobra.Command {
	var bpm float64
	var format string
	cmd := &cobra.Command{
		Use:   "export DRILL.json FILE",
		Short: "Take a drill out as MusicXML, MIDI, tab text or sound",
		Long:  "The format is told by the file's ending: .musicxml, .mid, .txt, .json or .wav; --format overrides it.",
		Args:  cobra.ExactArgs(2),
		RunE: func(cmd *cobra.Command, args []string) error {
			file, err := readDrill(args[0])
			if err != nil {
				return err
			}
			if bpm == 0 {
				bpm = file.Ladder.StartBPM
			}
			if format == "" {
				if format, err = formatOf(args[1]); err != nil {
					return err
				}
			}
			doc, err := exchange.Export(file, guitar.Standard(), guitar.UsualHand(), bpm, exchange.Format(format))
			if err != nil {
				return err
			}
			for _, text := range doc.Lost {
				fmt.Fprintln(cmd.ErrOrStderr(), text)
			}
			return os.WriteFile(args[1], doc.Content, 0o644)
		},
	}
	cmd.Flags().Float64Var(&bpm, "bpm", 0, "tempo; the ladder's start where not given")
	cmd.Flags().StringVar(&format, "format", "", "musicxml, midi, tab, json, wav or wavClick")
	return cmd
}

func formatOf(name string) (string, error) {
	for ending, format := range map[string]exchange.Format{
		".musicxml": exchange.MusicXML, ".xml": exchange.MusicXML, ".mid": exchange.MIDI, ".midi": exchange.MIDI,
		".txt": exchange.Tab, ".tab": exchange.Tab, ".json": exchange.JSON, ".wav": exchange.WAV,
	} {
		if strings.HasSuffix(strings.ToLower(name), ending) {
			return string(format), nil
		}
	}
	return "", fmt.Errorf("the ending of %s tells no format; name it with --format", name)
}

func importCommand() *cobra.Command {
	var line int
	var bars []int
	c := &cobra.Command{
		Use:   "import FILE DRILL.json",
		Short: "Make a drill of MusicXML, MIDI or tab text",
		Args:  cobra.ExactArgs(2),
		RunE: func(cmd *cobra.Command, args []string) error {
			raw, err := readFile(args[0])
			if err != nil {
				return err
			}
			choice := exchange.Choice{Line: line - 1}
			if len(bars) > 2 || len(bars) == 1 {
				return errors.New("bars are the first and the last, such as --bars 5,8")
			} else if len(bars) == 2 {
				choice.FirstBar, choice.LastBar = bars[0], bars[1]
			}
			in, err := exchange.Import(raw, guitar.Standard(), choice)
			if err != nil {
				return err
			}
			for i, l := range in.Lines {
				if len(in.Lines) > 1 {
					fmt.Fprintf(cmd.ErrOrStderr(), "line %d: %s, %s\n", i+1, l.Name, words.Counted(l.Notes, "note"))
				}
			}
			for _, text := range in.Told {
				fmt.Fprintln(cmd.ErrOrStderr(), text)
			}
			document, err := json.MarshalIndent(in.File, "", "  ")
			if err != nil {
				return err
			}
			return os.WriteFile(args[1], append(document, '\n'), 0o644)
		},
	}
	c.Flags().IntVar(&line, "line", 0, "part, staff, track or channel to read, as they are listed; 0 for the likeliest")
	c.Flags().IntSliceVar(&bars, "bars", nil, "first and last bar to read, such as 5,8; as many as fit where not given")
	return c
}

// readDrill reads a drill document and checks that it can be played.
func readDrill(name string) (drillfile.File, error) {
	raw, err := readFile(name)
	if err != nil {
		return drillfile.File{}, err
	}
	file, err := drillfile.Read(raw)
	if err != nil {
		return file, err
	}
	if faults := file.Check(guitar.Standard()); len(faults) > 0 {
		return file, faults
	}
	return file, nil
}
