package server

import (
	"context"
	"time"

	"manudrill/api"
	"manudrill/core/practice"
	"manudrill/store"
)

// oldestReport is how far back a report reaches at the most, which a device has kept
// without a line: all takes since are decided anew.
const oldestReport = 30 * 24 * time.Hour

// reportsShown is how many of a student's reports are told.
const reportsShown = 50

// GetHand tells what a student said of their hand, and how much they have slurred.
func (s *Server) GetHand(ctx context.Context, r api.GetHandRequestObject) (api.GetHandResponseObject, error) {
	record, err := s.handOf(ctx, r)
	return api.GetHand200JSONResponse(record), err
}

func (s *Server) handOf(ctx context.Context, r api.GetHandRequestObject) (api.HandRecord, error) {
	record := api.HandRecord{}
	if _, err := s.setupFor(ctx, &r.StudentId); err != nil {
		return record, err // who may not see the student
	}
	reports, err := s.store.HandReports(ctx, r.StudentId, store.Page{Limit: reportsShown})
	if err != nil {
		return record, err
	}
	weeks, err := s.store.Load(ctx, r.StudentId)
	if err != nil {
		return record, err
	}
	record.Hurts, err = s.store.Hurts(ctx, r.StudentId)
	record.Reports, record.Weeks = each(reports, handReportOf), each(weeks, weekOf)
	record.Places = each(practice.Places, func(p practice.Place) string { return string(p) })
	return record, err
}

func handReportOf(r store.HandReport) api.SavedHandReport {
	out := api.SavedHandReport{Id: r.ID, At: r.At, Report: r.Report.Value, WithdrawnAt: r.WithdrawnAt, ClearedAt: r.ClearedAt}
	if r.ClearedBy != "" {
		out.ClearedBy = &r.ClearedBy
	}
	return out
}

func weekOf(w store.Week) api.PracticeWeek {
	return api.PracticeWeek{Begins: w.Begins, Takes: w.Takes, Seconds: w.Seconds, SlurSeconds: w.SlurSeconds}
}

// AddHandReport keeps what somebody says of a hand.
func (s *Server) AddHandReport(ctx context.Context, r api.AddHandReportRequestObject) (api.AddHandReportResponseObject, error) {
	if faults := r.Body.Check(); len(faults) > 0 {
		return nil, faults
	}
	at, err := recordedAt(r.Params.At, time.Now())
	if err != nil {
		return nil, err
	}
	if oldest := time.Now().Add(-oldestReport); at.Before(oldest) {
		at = oldest
	}
	return api.AddHandReport204Response{}, s.store.AddHandReport(ctx, r.ReportId, r.StudentId, at, *r.Body)
}

// WithdrawHandReport takes back what was said by mistake.
func (s *Server) WithdrawHandReport(ctx context.Context, r api.WithdrawHandReportRequestObject) (api.WithdrawHandReportResponseObject, error) {
	return api.WithdrawHandReport204Response{}, s.store.WithdrawHandReport(ctx, r.ReportId, r.StudentId)
}

// ClearPain lets a student's ladders climb again.
func (s *Server) ClearPain(ctx context.Context, r api.ClearPainRequestObject) (api.ClearPainResponseObject, error) {
	return api.ClearPain204Response{}, s.store.ClearPain(ctx, r.StudentId)
}
