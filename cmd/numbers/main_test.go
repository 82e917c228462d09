package main

import (
	"os"
	"path/filepath"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

const source = `package x

// least is the least.
const least = 0.5

// Two that belong together.
const (
	one   = 10 // alone
	two   = -4.0
	three = one + 1
	word  = "no number"
)
`

func TestNumbersAreFoundWithTheirReasons(t *testing.T) {
	file := filepath.Join(t.TempDir(), "x.go")
	require.NoError(t, os.WriteFile(file, []byte(source), 0o600))
	all, err := numbersIn(file)
	require.NoError(t, err)
	require.Len(t, all, 3, "what is made of others is none")
	for i, want := range [][4]string{{"least", "0.5", "0.65", "least is the least."}, {"one", "10", "13", "alone"}, {"two", "-4.0", "-2.8", "Two that belong together."}} {
		assert.Equal(t, want, [4]string{all[i].name, all[i].value, all[i].raised, all[i].reason})
		assert.Equal(t, want[1], source[all[i].from:all[i].to])
	}
	assert.Equal(t, "2", raised("1"), "a whole number by one at the least")
}

func TestAnOverlayRaisesOneNumberAlone(t *testing.T) {
	folder := t.TempDir()
	file := filepath.Join(folder, "x.go")
	require.NoError(t, os.WriteFile(file, []byte(source), 0o600))
	all, err := numbersIn(file)
	require.NoError(t, err)
	_, err = all[1].overlay(folder)
	require.NoError(t, err)
	got, err := os.ReadFile(filepath.Join(folder, "raised.go"))
	require.NoError(t, err)
	assert.Contains(t, string(got), "one   = 13 // alone")
	assert.Contains(t, string(got), "least = 0.5")
}

// Each number of the rooms has its reason beside it.
func TestEachNumberHasItsReason(t *testing.T) {
	for _, room := range rooms {
		all, err := numbersOf(filepath.Join("..", "..", room))
		require.NoError(t, err)
		require.NotEmpty(t, all, room)
		for _, n := range all {
			assert.NotEmpty(t, n.reason, "%s %s", n.file, n.name)
		}
	}
}

// What the list has an answer for is not asked again, unless its value has changed since or
// there was no time for it.
func TestWhatWasAnsweredIsNotAskedAgain(t *testing.T) {
	made := func() []*number {
		return []*number{
			{name: "noticed", value: "1", file: "x.go", reason: "a | b", noticed: "TestX"},
			{name: "unnoticed", value: "2", file: "x.go", reason: "c"},
			{name: "late", value: "3", file: "x.go", noticed: notAsked},
			{name: "changed", value: "4", file: "x.go", noticed: "TestY"},
		}
	}
	list := table(made())
	now := made()
	for _, n := range now {
		n.noticed = ""
	}
	now[3].value = "4.5"
	open := unanswered(now, list)
	require.Len(t, open, 2)
	assert.Equal(t, "late", open[0].name)
	assert.Equal(t, "changed", open[1].name)
	assert.Equal(t, "TestX", now[0].noticed)
	assert.Empty(t, now[1].noticed)
}
