package server

import (
	"strconv"
	"unicode"
	"unicode/utf8"

	"manudrill/api"
	"manudrill/core/advice"
	"manudrill/core/drill"
	"manudrill/core/evenness"
	"manudrill/core/follow"
	"manudrill/core/listen"
	"manudrill/core/tempo"
	"manudrill/formats/drillfile"
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

func (s *Server) hereOf(a store.Account) api.Here {
	var letters *bool
	if s.sendsLetters && a.Email != "" {
		letters = &a.WantsLetters
	}
	return api.Here{Letters: letters, Person: personOf(a.Person), Studio: a.Studio, SignIn: a.SignIn, HasPassword: a.Hash != ""}
}

func memberOf(m store.Member) api.Member {
	state := api.New
	switch {
	case m.JoinedAt != nil:
		state = api.Joined
	case m.InvitedAt != nil:
		state = api.Invited
	}
	return api.Member{
		Person: personOf(m.Person), Revision: m.Revision, Email: m.Email, SignIn: m.SignIn, State: state, InvitedAt: m.InvitedAt, JoinedAt: m.JoinedAt,
		ArchivedAt: m.ArchivedAt, RemoveAt: m.RemoveAt, Note: m.Note, ConsentAt: m.ConsentAt, ConsentBy: m.ConsentBy, Level: levelOf(m.Level), Groups: notNil(m.Groups),
	}
}

// levelOf is a student's level; nil for none.
func levelOf(level string) *api.Level {
	if level == "" {
		return nil
	}
	l := api.Level(level)
	return &l
}

func notNil[T any](list []T) []T {
	if list == nil {
		return []T{}
	}
	return list
}

func groupOf(g store.Group) api.Group {
	return api.Group{Id: g.ID, Name: g.Name, Revision: g.Revision, Students: notNil(g.Students)}
}

func studioOf(s store.Studio) api.Studio {
	return api.Studio{Name: s.Name, Handle: s.Handle, Revision: s.Revision, SoundDays: s.SoundDays, TimeZone: s.TimeZone}
}

func letterOf(m store.Mail) api.Letter {
	return api.Letter{Id: m.ID, Recipient: m.Recipient, Subject: m.Subject, Text: m.Text, MadeAt: m.MadeAt, SentAt: m.SentAt, Failure: m.Failure}
}

func auditLineOf(l store.Line) api.AuditLine {
	return api.AuditLine{Id: l.ID, At: l.At, Actor: l.Actor, Did: l.Did, StudentId: l.Student, About: l.About}
}

func savedDrillOf(d store.Drill) api.SavedDrill {
	return api.SavedDrill{
		Id: d.ID, Version: d.Version, Revision: d.Revision, Name: d.Name, File: readable(d.File, d.Name), Odd: odd(d.File.Odd),
		ChangedAt: d.ChangedAt, Students: names(d.Students), Takes: d.Takes,
		Shelf: api.Shelf{Folder: d.Folder, Tags: names(d.Tags), Favourite: d.Favourite}, ShelfRevision: d.ShelfRevision,
	}
}

// readable is a stored drill, or an empty one where it cannot be read: it is told
// beside it that it is odd.
func readable(file store.Lenient[drillfile.File], name string) drillfile.File {
	if file.Odd == nil {
		return file.Value
	}
	return drillfile.File{Drill: drill.New(name, drill.Free{Notes: []drill.FreeNote{}}), Ladder: tempo.Usual()}
}

// odd is why a document cannot be read; nil where it can.
func odd(err error) *string {
	if err == nil {
		return nil
	}
	text := upperFirst(err.Error())
	return &text
}

func names(of []string) []string { return each(of, func(n string) string { return n }) }

func versionOf(v store.Version) api.Version {
	return api.Version{Version: v.Version, File: readable(v.File, "Version "+strconv.Itoa(v.Version)), Odd: odd(v.File.Odd), SavedAt: v.SavedAt, Takes: v.Takes, Students: names(v.Students)}
}

func savedBlockOf(b store.Block) api.SavedBlock {
	return api.SavedBlock{Id: b.ID, Block: readableBlock(b), Odd: odd(b.Block.Odd), Revision: b.Revision, MadeAt: b.MadeAt}
}

func readableBlock(b store.Block) drillfile.Block {
	if b.Block.Odd == nil {
		return b.Block.Value
	}
	return drillfile.Block{Name: b.Name, Items: []drillfile.BlockItem{}}
}

func assignmentOf(a store.Assignment) api.Assignment {
	return api.Assignment{
		Id: a.ID, DrillId: a.DrillID, DrillName: a.DrillName, Version: a.Version, Newest: a.Newest, Student: personOf(a.Student), Rung: a.Rung,
		Climb: climbOf(a.Rungs(), a.Rung), Gate: a.GateNow(), OwnGate: a.Gate != nil, Revision: a.Revision, Set: rungSetOf(a.Set),
		Takes: a.Takes, AssignedAt: a.AssignedAt, Last: a.Last, LastTakeAt: a.LastTakeAt, Video: a.Video,
	}
}

// climbOf tells where a rung is on its ladder; on one that cannot be read, it is
// alone.
func climbOf(rungs tempo.Rungs, at tempo.Rung) api.Climb {
	if len(rungs) == 0 {
		rungs = tempo.Rungs{at}
	}
	mixed := rungs.Mixed() || at.NotesPerBeat != rungs[0].NotesPerBeat
	return api.Climb{First: rungs[0], Last: rungs[len(rungs)-1], Below: rungs.Place(at), Rungs: len(rungs), Mixed: mixed}
}

func rungSetOf(s *store.RungSet) *api.RungSet {
	if s == nil {
		return nil
	}
	return &api.RungSet{At: s.At, Author: s.Author, Reason: s.Reason}
}

func moveOf(m store.Move) api.Move {
	move := api.Move{Id: m.ID, At: m.At, Step: api.MoveStep(m.Step), Rung: m.Rung, Reason: m.Reason}
	if m.Take {
		move.TakeId = &move.Id
	}
	if m.Author != "" {
		move.Author = &m.Author
	}
	return move
}

func takeCommentOf(u store.TakeComment) api.TakeComment {
	return api.TakeComment{Id: u.ID, Read: u.Read, TakeId: u.TakeID, DrillName: u.DrillName, Student: personOf(u.Student), Author: personOf(u.Author), Note: u.Note, Text: u.Text, WrittenAt: u.WrittenAt}
}

func pupilOf(p store.Pupil) api.Pupil {
	return api.Pupil{Member: memberOf(p.Member), Assignments: each(p.Assignments, assignmentOf), HurtSince: p.HurtSince}
}

func summaryOf(t store.TakeSummary) api.TakeSummary {
	s := api.TakeSummary{
		Id: t.ID, AssignmentId: t.AssignmentID, DrillName: t.DrillName, Student: personOf(t.Student),
		Rung: t.Rung, Source: api.Source(t.Source), SoundDropped: t.SoundDropped, Demo: t.Student.Demo, RecordedAt: t.RecordedAt, HandedInAt: t.HandedInAt,
		State: api.TakeSummaryState(t.State), Failure: sentence(t.Failure), Listener: t.Listener,
	}
	if t.Aside != tempo.NoAside {
		s.Aside = &t.Aside
	}
	if t.State != store.Measured || t.Decision == nil {
		return s
	}
	if newest := listen.Version; !t.SoundDropped && (t.Listener == nil || *t.Listener != newest) {
		s.NewestListener = &newest
	}
	s.Measured = &api.TakeFigures{
		Seconds: t.Seconds, HeldBpm: t.HeldBPM, NotesPerSecond: t.NotesPerSecond, SpreadMs: t.SpreadMs,
		SpreadPercent: t.SpreadPercent, RightPercent: t.RightPercent, Decision: *t.Decision,
	}
	return s
}

// sentence makes one of a message; nil where there is none.
func sentence(message *string) *string {
	if message == nil {
		return nil
	}
	text := upperFirst(*message) + "."
	return &text
}

// takeOf is a take with what is said of it. Takes measured before a figure was
// there do without it.
func takeOf(t store.Take, comments []store.Comment) api.Take {
	take := api.Take{Summary: summaryOf(t.TakeSummary), Chart: t.Chart, Comments: each(comments, commentOf), Corrections: each(t.Corrections, correctionOf)}
	if o := t.Other; o != nil {
		take.Other = &api.OtherDrill{AssignmentId: o.Assignment, DrillName: o.Name}
	}
	if v := t.Video; v != nil {
		take.Video = &api.TakeVideo{Media: api.TakeVideoMedia(v.Media), StartsAt: v.StartsAt}
	}
	if t.Analysis == nil {
		return take
	}
	a := *t.Analysis
	if a.Groups == nil {
		a.Groups = []evenness.Group{}
	}
	if a.Course.Events == nil {
		a.Course.Events = []follow.Event{}
	}
	said := advice.Of(a, t.Chart) // which marks what is heard
	take.Analysis, take.Advice = &a, &said
	if t.Decision != nil {
		take.Parts = advice.PartsOf(a, t.Decision.Gate)
	}
	return take
}

func correctionOf(c store.Correction) api.KeptCorrection {
	return api.KeptCorrection{Id: c.ID, What: c.What, Author: c.Author, At: c.At}
}

func contradictedOf(c store.Contradicted) api.Contradicted {
	return api.Contradicted{Of: api.ContradictedOf(c.Of), Kind: c.Kind, Said: c.Said, Takes: c.Takes}
}

func remeasuringOf(r store.Remeasuring) api.Remeasuring {
	return api.Remeasuring{StartedAt: r.StartedAt, EndedAt: r.EndedAt, Total: r.Total, Done: r.Done, Failed: r.Failed, Cancelled: r.Cancelled}
}

func commentOf(c store.Comment) api.Comment {
	return api.Comment{Id: c.ID, Note: c.Note, Text: c.Text, Author: personOf(c.Author), WrittenAt: c.WrittenAt, Revision: c.Revision, ReadAt: c.ReadAt}
}

func upperFirst(s string) string {
	r, size := utf8.DecodeRuneInString(s)
	return string(unicode.ToUpper(r)) + s[size:]
}
