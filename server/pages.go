package server

import (
	"time"

	"github.com/google/uuid"

	"manudrill/store"
)

// pageOf is the page of a list that a request asks for.
func pageOf(after *string, limit *int) (store.Page, error) {
	var p store.Page
	if limit != nil {
		p.Limit = *limit
	}
	if after == nil {
		return p, nil
	}
	c, err := store.ParseCursor(*after)
	if err != nil {
		return p, notAPlace(err)
	}
	p.After = &c
	return p, nil
}

// next is where the page after this one begins; nil where there is none.
func next[T any](items []T, page store.Page, place func(T) (time.Time, uuid.UUID)) *string {
	if len(items) < page.Size() {
		return nil
	}
	at, id := place(items[len(items)-1])
	text := store.Cursor{At: at, ID: id}.String()
	return &text
}

// afterID is the id a list that goes by names goes on after.
func afterID(after *string) (*uuid.UUID, error) {
	if after == nil {
		return nil, nil
	}
	id, err := uuid.Parse(*after)
	if err != nil {
		return nil, notAPlace(store.ErrCursor)
	}
	return &id, nil
}

// nextID is the id that the page after this one goes on after; nil where there is
// none.
func nextID[T any](items []T, most int, id func(T) uuid.UUID) *string {
	if len(items) < most {
		return nil
	}
	text := id(items[len(items)-1]).String()
	return &text
}
