package server

import (
	"unicode"
	"unicode/utf8"

	"manudrill/api"
	"manudrill/core/evenness"
	"manudrill/store"
)

// each converts every item of a list; the result is never nil, so that it is
// written as a list.
func each[A, B any](items []A, convert func(A) B) []B {
	out := make([]B, len(items))
	for i, item := range items {
		out[i] = convert(item)
	}
	return out
}

func personOf(p store.Person) api.Person {
	return api.Person{Id: p.ID, Name: p.Name, Role: api.PersonRole(p.Role), Demo: p.Demo}
}

func savedDrillOf(d store.Drill) api.SavedDrill {
	return api.SavedDrill{
		Id: d.ID, Version: d.Version, File: d.File, ChangedAt: d.ChangedAt, Students: names(d.Students), Takes: d.Takes,
		Shelf: api.Shelf{Folder: d.Folder, Tags: names(d.Tags), Favourite: d.Favourite},
	}
}

func names(of []string) []string { return each(of, func(n string) string { return n }) }

func versionOf(v store.Version) api.Version {
	return api.Version{Version: v.Version, File: v.File, SavedAt: v.SavedAt, Takes: v.Takes, Students: names(v.Students)}
}

func savedBlockOf(b store.Block) api.SavedBlock {
	return api.SavedBlock{Id: b.ID, Block: b.Block, MadeAt: b.MadeAt}
}

func assignmentOf(a store.Assignment) api.Assignment {
	return api.Assignment{
		Id: a.ID, DrillId: a.DrillID, DrillName: a.File.Drill.Name, Version: a.Version, Newest: a.Newest, Student: personOf(a.Student), Bpm: a.BPM(),
		Ladder: a.File.Ladder, Takes: a.Takes, AssignedAt: a.AssignedAt, Last: a.Last, LastTakeAt: a.LastTakeAt,
	}
}

func summaryOf(t store.Take) api.TakeSummary {
	c := t.Analysis.Counts
	return api.TakeSummary{
		Id: t.ID, AssignmentId: t.AssignmentID, DrillName: t.Chart.Name, Student: personOf(t.Student),
		Bpm: t.BPM, Source: api.Source(t.Source), Demo: t.Student.Demo, RecordedAt: t.RecordedAt, Seconds: t.Seconds,
		HeldBpm: t.Analysis.Tempo.BPM, NotesPerSecond: t.Analysis.Tempo.NotesPerSecond,
		SpreadMs: t.Analysis.Timing.SpreadMs, SpreadPercent: t.Analysis.Timing.SpreadPercent,
		RightPercent: 100 * float64(c.Played) / float64(max(1, c.Expected+c.Extra)), Decision: t.Decision,
	}
}

// takeOf is a take with what is said of it. Takes measured before a figure was
// there do without it.
func takeOf(t store.Take, comments []store.Comment) api.Take {
	a := t.Analysis
	if a.Groups == nil {
		a.Groups = []evenness.Group{}
	}
	if a.Course.Stops == nil {
		a.Course.Stops = []evenness.Stop{}
	}
	return api.Take{Summary: summaryOf(t), Chart: t.Chart, Analysis: a, Advice: evenness.Advise(a, t.Chart), Comments: each(comments, commentOf)}
}

func commentOf(c store.Comment) api.Comment {
	return api.Comment{Id: c.ID, Note: c.Note, Text: c.Text, Author: personOf(c.Author), WrittenAt: c.WrittenAt}
}

func upperFirst(s string) string {
	r, size := utf8.DecodeRuneInString(s)
	return string(unicode.ToUpper(r)) + s[size:]
}
