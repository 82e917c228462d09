package archive_test

import (
	"archive/zip"
	"bytes"
	"encoding/csv"
	"encoding/json"
	"io"
	"os"
	"os/exec"
	"path/filepath"
	"strings"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"manudrill/formats/archive"
)

var noon = time.Date(2026, 5, 4, 12, 0, 0, 0, time.UTC)

func example(t *testing.T, to io.Writer) {
	t.Helper()
	w := archive.New(to, noon)
	require.NoError(t, w.About())
	require.NoError(t, w.JSON("student.json", map[string]any{"name": "Mira"}))
	for i, name := range []string{"pairs, slurred", "=1+1"} {
		folder := archive.Folder(noon.Add(time.Duration(i)*time.Hour), "id")
		require.NoError(t, w.Take(archive.TakeRow{RecordedAt: noon, Drill: name, BPM: 72.5, NotesPerBeat: 2, Step: "up", Counts: true, Folder: folder}, map[string]any{"bpm": 72.5}))
		require.NoError(t, w.Sound(folder, "flac", strings.NewReader("fLaC")))
	}
	require.NoError(t, w.Close())
}

// What is written is what the ZIP and CSV readers of the standard library read.
func TestAnArchive(t *testing.T) {
	var b bytes.Buffer
	example(t, &b)
	z, err := zip.NewReader(bytes.NewReader(b.Bytes()), int64(b.Len()))
	require.NoError(t, err)
	files := map[string]string{}
	for _, f := range z.File {
		r, err := f.Open()
		require.NoError(t, err)
		raw, err := io.ReadAll(r)
		require.NoError(t, err)
		files[f.Name] = string(raw)
	}
	assert.Len(t, files, 7)
	assert.Equal(t, "fLaC", files["takes/2026-05-04 12.00.00 id/take.flac"])
	var student map[string]any
	require.NoError(t, json.Unmarshal([]byte(files["student.json"]), &student))
	assert.Equal(t, "Mira", student["name"])
	rows, err := csv.NewReader(strings.NewReader(files["takes.csv"])).ReadAll()
	require.NoError(t, err)
	require.Len(t, rows, 3)
	assert.Equal(t, []string{"2026-05-04T12:00:00Z", "pairs, slurred", "72.5", "2"}, rows[1][:4])
	assert.Equal(t, "'=1+1", rows[2][1], "no spreadsheet runs it")
}

// Another reader of the format opens it too: Python's zipfile.
func TestAnotherReaderOpensIt(t *testing.T) {
	name := filepath.Join(t.TempDir(), "student.zip")
	var b bytes.Buffer
	example(t, &b)
	require.NoError(t, os.WriteFile(name, b.Bytes(), 0o600))
	out, err := exec.Command("python3", "-m", "zipfile", "-t", name).CombinedOutput()
	require.NoError(t, err, "%s", out)
	assert.Contains(t, string(out), "Done testing")
}

// One that broke off cannot be taken for a whole one.
func TestAnArchiveThatBrokeOff(t *testing.T) {
	var b bytes.Buffer
	w := archive.New(&b, noon)
	require.NoError(t, w.About())
	_, err := zip.NewReader(bytes.NewReader(b.Bytes()), int64(b.Len()))
	assert.Error(t, err)
}
