package archive_test

import (
	"bytes"
	"encoding/binary"
	"io"
	"strings"
	"testing"

	"github.com/google/uuid"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"manudrill/formats/ziptest"

	"manudrill/formats/archive"
)

var (
	student = uuid.New()
	take    = uuid.New()
)

// taken writes an archive of a student with some rows.
func taken(t *testing.T, rows ...[2]string) []byte {
	t.Helper()
	var b bytes.Buffer
	w := archive.New(&b, noon)
	require.NoError(t, w.Rows(archive.About{Of: archive.OfStudent, Student: &student, Name: "Mira", Tables: 16}, func(row func(string, []byte) error) error {
		for _, r := range rows {
			if err := row(r[0], []byte(r[1])); err != nil {
				return err
			}
		}
		return nil
	}))
	folder := archive.Folder(noon, take.String())
	require.NoError(t, w.Sound(folder, "flac", strings.NewReader("fLaC")))
	require.NoError(t, w.Video(folder, "webm", strings.NewReader("hands")))
	require.NoError(t, w.Close())
	return b.Bytes()
}

func open(raw []byte) (*archive.Reader, error) {
	return archive.Open(bytes.NewReader(raw), int64(len(raw)))
}

func TestAnArchiveIsReadAgain(t *testing.T) {
	r, err := open(taken(t, [2]string{"people", `{"id": 1}`}, [2]string{"people", `{"id": 2}`}, [2]string{"takes", `{"text": "a\nb"}`}))
	require.NoError(t, err)
	assert.Equal(t, archive.About{Of: archive.OfStudent, Student: &student, Name: "Mira", Tables: 16}, r.About)
	read := func(table string) (all []string) {
		require.NoError(t, r.Rows(table, func(row []byte) error {
			all = append(all, string(row))
			return nil
		}))
		return all
	}
	assert.Equal(t, []string{`{"id": 1}`, `{"id": 2}`}, read("people"))
	assert.Equal(t, []string{`{"text": "a\nb"}`}, read("takes"))
	assert.Empty(t, read("plans"))
	for open, want := range map[string]func(uuid.UUID) (io.ReadCloser, error){"fLaC": r.Sound, "hands": r.Video} {
		in, err := want(take)
		require.NoError(t, err)
		raw, err := io.ReadAll(in)
		require.NoError(t, err)
		assert.Equal(t, open, string(raw))
		none, err := want(uuid.New())
		require.NoError(t, err)
		assert.Nil(t, none)
	}
}

func TestWhatIsNoArchive(t *testing.T) {
	whole := taken(t, [2]string{"people", `{}`})
	huge := bytes.Clone(whole)
	binary.LittleEndian.PutUint32(huge[len(huge)-10:], 1<<30) // the size of the list, in the end record
	about := `{"of": "student", "student": "` + student.String() + `"}`
	for name, c := range map[string]struct {
		raw  []byte
		want error
	}{
		"nothing":               {nil, archive.ErrNoArchive},
		"a text":                {[]byte("name,e-mail"), archive.ErrNoArchive},
		"half of one":           {whole[:len(whole)/2], archive.ErrNoArchive},
		"another ZIP":           {ziptest.Of(t, map[string]string{"a.txt": "a"}), archive.ErrNoArchive},
		"one of before":         {ziptest.Of(t, map[string]string{"student.json": "{}"}), archive.ErrOld},
		"of nobody":             {ziptest.Of(t, map[string]string{"rows/about.json": `{"of": "student"}`}), archive.ErrNoArchive},
		"of something else":     {ziptest.Of(t, map[string]string{"rows/about.json": strings.Replace(about, "student", "band", 1)}), archive.ErrNoArchive},
		"a list of a gigabyte":  {huge, archive.ErrTooLarge},
		"about itself in babel": {ziptest.Of(t, map[string]string{"rows/about.json": "mira"}), archive.ErrNoArchive},
	} {
		_, err := open(c.raw)
		assert.ErrorIs(t, err, c.want, name)
		assert.True(t, archive.IsFault(err), name)
	}
	r, err := open(ziptest.Of(t, map[string]string{"rows/about.json": about, "rows/people.jsonl": strings.Repeat("x", 17<<20)}))
	require.NoError(t, err)
	assert.ErrorIs(t, r.Rows("people", func([]byte) error { return nil }), archive.ErrTooLarge, "a row without an end")

	damaged := bytes.Clone(whole)
	at := bytes.Index(damaged, []byte("fLaC"))
	damaged[at] = 'F'
	r, err = open(damaged)
	require.NoError(t, err)
	in, err := r.Sound(take)
	require.NoError(t, err)
	_, err = io.ReadAll(in)
	assert.ErrorIs(t, err, archive.ErrDamaged, "by its checksum")
}

func FuzzOpen(f *testing.F) {
	f.Add([]byte("PK\x05\x06"))
	f.Fuzz(func(t *testing.T, raw []byte) {
		r, err := open(raw)
		if err != nil {
			return
		}
		_ = r.Rows("people", func([]byte) error { return nil }) // whatever it is, it ends
	})
}
