package server

import (
	"sync"
	"time"
)

// A memo remembers for a while what was looked up.
type memo[K comparable, V any] struct {
	lasts time.Duration
	mu    sync.Mutex
	kept  map[K]entry[V]
}

type entry[V any] struct {
	value V
	until time.Time
}

func newMemo[K comparable, V any](lasts time.Duration) *memo[K, V] {
	return &memo[K, V]{lasts: lasts, kept: map[K]entry[V]{}}
}

// mostKept is of how many a memo remembers what was looked up.
const mostKept = 10_000

// get returns what is remembered, or looks it up. Faults are not remembered.
func (m *memo[K, V]) get(key K, look func() (V, error)) (V, error) {
	m.mu.Lock()
	e, known := m.kept[key]
	m.mu.Unlock()
	if known && time.Now().Before(e.until) {
		return e.value, nil
	}
	began := time.Now() // what is changed while it is looked up is asked for again the sooner
	v, err := look()
	if err != nil {
		return v, err
	}
	m.mu.Lock()
	defer m.mu.Unlock()
	if len(m.kept) >= mostKept {
		clear(m.kept)
	}
	m.kept[key] = entry[V]{v, began.Add(m.lasts)}
	return v, nil
}

// clear makes all who ask look again.
func (m *memo[K, V]) clear() {
	m.mu.Lock()
	defer m.mu.Unlock()
	clear(m.kept)
}

// forget makes the next to ask look again.
func (m *memo[K, V]) forget(key K) {
	m.mu.Lock()
	defer m.mu.Unlock()
	delete(m.kept, key)
}
