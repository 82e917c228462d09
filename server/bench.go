package server

import (
	"context"
	"io"

	"github.com/google/uuid"

	"manudrill/api"
	"manudrill/core/drill"
	"manudrill/core/drill/chart"
	"manudrill/core/drill/library"
	"manudrill/core/drill/review"
	"manudrill/core/drill/score"
	"manudrill/core/guitar"
	"manudrill/core/practice"
	"manudrill/core/setup"
	"manudrill/core/tempo"
	"manudrill/formats/drillfile"
	"manudrill/formats/exchange"
)

// setupFor returns whose guitar and hand a request is about: the person's it
// names, or that of the one who is here.
func (s *Server) setupFor(ctx context.Context, person *uuid.UUID) (setup.Setup, error) {
	if person == nil {
		own := here(ctx).ID
		person = &own
	}
	setup, _, err := s.store.Setup(ctx, *person)
	return setup, err
}

// GetBench tells what drills can be made from.
func (s *Server) GetBench(context.Context, api.GetBenchRequestObject) (api.GetBenchResponseObject, error) {
	return api.GetBench200JSONResponse{
		Families: library.Families(), Scales: guitar.Scales, CombinationSets: drill.CombinationSets(),
		FingerOrders: drill.FingerOrders(), ReadySets: library.ReadySets(), ReadyRoutines: practice.ReadyRoutines(), Usual: tempo.Usual(),
	}, nil
}

// Preview writes a drill out while it is being set and looks at it. Faults are
// part of the answer: a drill half set is no error. How hard it is, is weighed
// as the instructor here weighs it.
func (s *Server) Preview(ctx context.Context, r api.PreviewRequestObject) (api.PreviewResponseObject, error) {
	setup, err := s.setupFor(ctx, r.Params.For)
	if err != nil {
		return nil, err
	}
	own, _, err := s.store.Setup(ctx, here(ctx).ID)
	if err != nil {
		return nil, err
	}
	return api.Preview200JSONResponse(previewOf(*r.Body, setup, own.Weights)), nil
}

func previewOf(file drillfile.File, setup setup.Setup, weights setup.Weights) api.Preview {
	g := setup.Guitar
	p := api.Preview{Faults: append(drill.Faults{}, file.Check(g)...)}
	rungs := file.Rungs()
	if len(rungs) == 0 {
		return p // the faults say why
	}
	first := file.At(rungs[0])
	c, err := first.ChartFor(g, setup.Hand, rungs[0].BPM)
	if err != nil {
		return p // as above
	}
	neck, steps := neckOf(setup, c), stepsOf(file, g)
	p.Chart, p.Neck, p.Steps = &c, &neck, &steps
	remarks, damping, chords := review.Of(first, c, g, setup.Hand), review.DampingOf(c), review.ChordsOf(c)
	difficulty, varieties := review.DifficultyOf(c, g, setup.Hand, weights), file.Drill.Varieties()
	p.Remarks, p.Damping, p.Chords, p.Difficulty, p.Varieties = &remarks, &damping, &chords, &difficulty, &varieties
	return p
}

// stepsOf tells how fast the notes come at each rung of the ladder. How many there are
// hangs on the rung where something lasts so many beats or seconds.
func stepsOf(file drillfile.File, g guitar.Guitar) []api.TempoStep {
	steps := []api.TempoStep{}
	for _, r := range file.Rungs() {
		seconds := float64(file.At(r).NotesAt(g, r.BPM)) / r.NotesPerSecond()
		steps = append(steps, api.TempoStep{
			Rung: r, NotesPerSecond: r.NotesPerSecond(), SecondsPerPass: seconds, SecondsPerTake: float64(file.Drill.Rhythm.Passes) * seconds,
		})
	}
	return steps
}

// neckOf measures the neck, from the capo, and how far the hand reaches on it
// for a chart.
func neckOf(setup setup.Setup, c chart.Chart) api.Neck {
	g := setup.Guitar
	n := api.Neck{Frets: g.Frets - g.Capo, ScaleMm: g.ScaleMM, TopFret: g.TopFret(), Capo: g.Capo, LeftHanded: setup.LeftHanded}
	for fret := range n.Frets + 1 {
		n.FretMm = append(n.FretMm, g.Reach(0, fret))
	}
	low, high := g.Frets, 0
	for _, note := range c.Notes {
		if note.Hand == chart.FrettingHand && note.Fret > 0 {
			low, high = min(low, note.Fret), max(high, note.Fret)
		}
	}
	if low <= high {
		n.ReachMm = g.Reach(low, high)
	}
	return n
}

// Rework transposes a drill, moves it to other strings, puts it picked before what it
// is, or makes its notes a cell of one's own.
func (s *Server) Rework(ctx context.Context, r api.ReworkRequestObject) (api.ReworkResponseObject, error) {
	d := r.Body.Drill
	if r.Body.Transpose != nil {
		d = d.Transposed(*r.Body.Transpose)
	}
	if r.Body.Thicker != nil {
		d = d.OnStrings(*r.Body.Thicker)
	}
	if r.Body.PickedFirst != nil && *r.Body.PickedFirst {
		d = d.PickedFirst()
	}
	if r.Body.Free != nil && *r.Body.Free {
		setup, err := s.setupFor(ctx, r.Params.For)
		if err != nil {
			return nil, err
		}
		c, err := d.ChartFor(setup.Guitar, setup.Hand, tempo.Usual().StartBPM)
		if err != nil {
			return nil, err
		}
		d = score.FreeOf(d, c)
	}
	return api.Rework200JSONResponse{Drill: d}, nil
}

// Join makes one drill of several that are played without a stop.
func (s *Server) Join(ctx context.Context, r api.JoinRequestObject) (api.JoinResponseObject, error) {
	setup, err := s.setupFor(ctx, r.Params.For)
	if err != nil {
		return nil, err
	}
	if faults := r.Body.Check(setup.Guitar); len(faults) > 0 {
		return nil, faults
	}
	joined := r.Body.Joined()
	if faults := joined.Check(setup.Guitar); len(faults) > 0 {
		return nil, faults
	}
	return api.Join200JSONResponse(joined), nil
}

// Vary returns all variations of a drill of one kind.
func (s *Server) Vary(ctx context.Context, r api.VaryRequestObject) (api.VaryResponseObject, error) {
	setup, err := s.setupFor(ctx, r.Params.For)
	if err != nil {
		return nil, err
	}
	if faults := r.Body.Check(setup.Guitar); len(faults) > 0 {
		return nil, faults
	}
	all, err := r.Body.Drill.Variations(setup.Guitar, r.Params.By)
	if err != nil {
		return nil, notOffered(err)
	}
	return api.Vary200JSONResponse(each(all, func(d drill.Drill) drillfile.File {
		return drillfile.File{Drill: d, Ladder: r.Body.Ladder}
	})), nil
}

// Export takes a drill out in an open format.
func (s *Server) Export(ctx context.Context, r api.ExportRequestObject) (api.ExportResponseObject, error) {
	setup, err := s.setupFor(ctx, r.Params.For)
	if err != nil {
		return nil, err
	}
	if err := s.heavy.enter(ctx); err != nil { // as sound, it is held whole
		return nil, err
	}
	defer s.heavy.leave()
	doc, err := exchange.Export(*r.Body, setup.Guitar, setup.Hand, r.Params.Bpm, exchange.Format(r.Params.Format))
	if err != nil {
		return nil, err
	}
	return api.Export200JSONResponse{Name: doc.Name, Media: doc.Media, Content: doc.Content, Lost: doc.Lost}, nil
}

// Import makes a drill of a file.
func (s *Server) Import(ctx context.Context, r api.ImportRequestObject) (api.ImportResponseObject, error) {
	setup, err := s.setupFor(ctx, r.Params.For)
	if err != nil {
		return nil, err
	}
	content, err := io.ReadAll(r.Body) // which is bounded
	if err != nil {
		return nil, err
	}
	choice := exchange.Unasked
	if p := r.Params; p.Line != nil {
		choice.Line = *p.Line
	}
	if p := r.Params; p.FirstBar != nil {
		choice.FirstBar = *p.FirstBar
	}
	if p := r.Params; p.LastBar != nil {
		choice.LastBar = *p.LastBar
	}
	in, err := exchange.Import(content, setup.Guitar, choice)
	if err != nil {
		return nil, notReadable(err)
	}
	return api.Import200JSONResponse{
		File: in.File, Told: in.Told, Lines: in.Lines, Line: in.Line, Bars: in.Bars, FirstBar: in.FirstBar, LastBar: in.LastBar,
	}, nil
}
