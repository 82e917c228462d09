// Package memtest tells tests how much memory a piece of code asks for, so that
// what reads hostile input is held to its bounds.
package memtest

import (
	"runtime"
	"testing"
	"time"
)

// MB is a million bytes, about.
const MB = 1 << 20

// AtMost fails the test when f asks for more than so many bytes, all told, whether
// they are given back or not. Nothing else may run beside it.
func AtMost(t testing.TB, bytes uint64, what string, f func()) {
	t.Helper()
	var before, after runtime.MemStats
	runtime.ReadMemStats(&before)
	f()
	runtime.ReadMemStats(&after)
	if asked := after.TotalAlloc - before.TotalAlloc; asked > bytes {
		t.Errorf("%s asks for %d MB; %d MB is the most", what, asked/MB, bytes/MB)
	}
}

// hopeless is far longer than anything that is linear in its input takes; what is
// not takes minutes for the same.
const hopeless = 30 * time.Second

// Ends fails the test at once when f goes on for so long that its time cannot be
// linear in its input. It measures nothing: a slow machine does not fail it.
func Ends(t testing.TB, what string, f func()) {
	t.Helper()
	done := make(chan struct{})
	go func() {
		defer close(done)
		f()
	}()
	select {
	case <-done:
	case <-time.After(hopeless):
		t.Fatalf("%s does not end", what)
	}
}
