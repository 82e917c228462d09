package logbook_test

import (
	"bytes"
	"encoding/csv"
	"errors"
	"strings"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"manudrill/formats/logbook"
)

func TestATableAsSpreadsheetsReadIt(t *testing.T) {
	var out bytes.Buffer
	w := logbook.New(&out, "day", "drill", "minutes", "takes", "clean", "at")
	day := time.Date(2026, 3, 2, 0, 0, 0, 0, time.UTC)
	w.Row(logbook.Day(day), `Slurs "1-2", slow`, 12.5, 3, true, day.Add(90*time.Minute))
	w.Row(logbook.Day(day), "=HYPERLINK(1)", 0.0, 0, false, day)
	require.NoError(t, w.Done())
	assert.True(t, strings.HasPrefix(out.String(), "\ufeff"), "it says that it is UTF-8")
	assert.Contains(t, out.String(), "\r\n2026-03-02,\"Slurs \"\"1-2\"\", slow\",12.5,3,yes,2026-03-02T01:30:00Z\r\n")
	rows, err := csv.NewReader(strings.NewReader(strings.TrimPrefix(out.String(), "\ufeff"))).ReadAll()
	require.NoError(t, err)
	require.Len(t, rows, 3)
	assert.Equal(t, `Slurs "1-2", slow`, rows[1][1])
	assert.Equal(t, "'=HYPERLINK(1)", rows[2][1], "no spreadsheet reckons with what somebody has typed")
}

type full struct{}

func (full) Write([]byte) (int, error) { return 0, errors.New("full") }

func TestAFaultIsTold(t *testing.T) {
	w := logbook.New(full{}, "day")
	w.Row("x")
	assert.ErrorContains(t, w.Done(), "full")
}
