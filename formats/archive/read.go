package archive

import (
	"archive/zip"
	"bufio"
	"encoding/binary"
	"encoding/json"
	"errors"
	"io"
	"path"
	"strings"

	"github.com/google/uuid"
)

// Bounds of what is read, in bytes.
const (
	MaxBytes     = 2 << 30   // of the file, as it is sent; a larger studio moves by a backup
	maxDirectory = 64 << 20  // of the list of what is in it
	maxRow       = 16 << 20  // of one row
	maxRows      = 4 << 30   // of all rows of a table, unpacked
	maxFile      = 256 << 20 // of a sound or a video
)

// About says what an archive is of.
type About struct {
	Of      string     `json:"of"`                // [OfStudent] or [OfStudio]
	Student *uuid.UUID `json:"student,omitempty"` // whose it is
	Name    string     `json:"name"`              // of the student or the studio
	Tables  int64      `json:"tables"`            // version of the tables from which the rows are
}

// What archives are of.
const (
	OfStudent = "student"
	OfStudio  = "studio"
)

// aboutName is where About lies.
const aboutName = "rows/about.json"

// Errors of what is no archive. They say what to do.
var (
	ErrNoArchive = errors.New("this is no archive of Manudrill; choose the ZIP file as it was exported, unchanged")
	ErrOld       = errors.New("this archive was made by a Manudrill that could not bring archives in; take it out anew there, after an update")
	ErrDamaged   = errors.New("the archive is damaged; take it out, or copy it, anew")
	ErrTooLarge  = errors.New("there is more in the archive than can be brought in; move a large studio by a backup")
)

// IsFault reports whether an error tells what is wrong with an archive.
func IsFault(err error) bool {
	return errors.Is(err, ErrNoArchive) || errors.Is(err, ErrOld) || errors.Is(err, ErrDamaged) || errors.Is(err, ErrTooLarge)
}

// A Reader reads an archive, part by part; none is held whole.
type Reader struct {
	About
	files  map[string]*zip.File
	sounds map[uuid.UUID]*zip.File
	videos map[uuid.UUID]*zip.File
}

// Open looks into an archive of so many bytes.
func Open(file io.ReaderAt, size int64) (*Reader, error) {
	if size > MaxBytes || directoryOf(file, size) > maxDirectory {
		return nil, ErrTooLarge
	}
	z, err := zip.NewReader(file, size)
	if err != nil {
		return nil, ErrNoArchive
	}
	r := &Reader{files: map[string]*zip.File{}, sounds: map[uuid.UUID]*zip.File{}, videos: map[uuid.UUID]*zip.File{}}
	for _, f := range z.File {
		r.files[f.Name] = f
		r.ofTake(f)
	}
	if r.files[aboutName] == nil {
		if r.files["student.json"] != nil {
			return nil, ErrOld
		}
		return nil, ErrNoArchive
	}
	in, err := r.files[aboutName].Open()
	if err != nil {
		return nil, ErrDamaged
	}
	defer in.Close()
	if err := json.NewDecoder(io.LimitReader(in, maxRow)).Decode(&r.About); err != nil || (r.Of == OfStudent) != (r.Student != nil) || (r.Of == OfStudio) != (r.Student == nil) {
		return nil, ErrNoArchive
	}
	return r, nil
}

// ofTake files a sound or a video under its take, whose id ends the name of its folder.
func (r *Reader) ofTake(f *zip.File) {
	folder, name := path.Split(f.Name)
	folder = strings.TrimSuffix(folder, "/")
	id, err := uuid.Parse(folder[strings.LastIndexAny(folder, " /")+1:])
	if err != nil || !strings.HasPrefix(folder, "takes/") {
		return
	}
	switch {
	case strings.HasPrefix(name, "hands."):
		r.videos[id] = f
	case strings.HasPrefix(name, "take.") && name != "take.json":
		r.sounds[id] = f
	}
}

// Rows hands over the rows of a table, each as JSON that is valid until the next; a table
// that is not there has none.
func (r *Reader) Rows(table string, row func([]byte) error) error {
	f := r.files["rows/"+table+".jsonl"]
	if f == nil {
		return nil
	}
	if f.UncompressedSize64 > maxRows {
		return ErrTooLarge
	}
	in, err := f.Open()
	if err != nil {
		return ErrDamaged
	}
	defer in.Close()
	lines := bufio.NewScanner(io.LimitReader(in, maxRows))
	lines.Buffer(nil, maxRow)
	for lines.Scan() {
		if err := row(lines.Bytes()); err != nil {
			return err
		}
	}
	if errors.Is(lines.Err(), bufio.ErrTooLong) {
		return ErrTooLarge
	}
	if lines.Err() != nil {
		return ErrDamaged
	}
	return nil
}

// Sound opens the recording of a take; nil where there is none.
func (r *Reader) Sound(take uuid.UUID) (io.ReadCloser, error) { return opened(r.sounds[take]) }

// Video opens the video of a take; nil where there is none.
func (r *Reader) Video(take uuid.UUID) (io.ReadCloser, error) { return opened(r.videos[take]) }

func opened(f *zip.File) (io.ReadCloser, error) {
	if f == nil {
		return nil, nil
	}
	if f.UncompressedSize64 > maxFile {
		return nil, ErrTooLarge
	}
	in, err := f.Open()
	if err != nil {
		return nil, ErrDamaged
	}
	return &whole{in}, nil
}

// whole tells a part that cannot be read to its end from any other fault.
type whole struct{ io.ReadCloser }

func (w *whole) Read(p []byte) (int, error) {
	n, err := w.ReadCloser.Read(p)
	if err != nil && !errors.Is(err, io.EOF) {
		err = ErrDamaged
	}
	return n, err
}

// directoryOf is how many bytes the list of a ZIP file has, by its end record (PKWARE
// APPNOTE 4.3.14 to 4.3.16), so that no list is read that fills the memory; 0 where no
// record is found, which the reader then tells.
func directoryOf(file io.ReaderAt, size int64) int64 {
	const record, locator, comment = 22, 20, 1<<16 - 1
	tail := make([]byte, min(size, record+comment))
	if _, err := file.ReadAt(tail, size-int64(len(tail))); err != nil {
		return 0
	}
	at := strings.LastIndex(string(tail), "PK\x05\x06")
	if at < 0 || at+record > len(tail) {
		return 0
	}
	if bytes := int64(binary.LittleEndian.Uint32(tail[at+12:])); bytes != 1<<32-1 {
		return bytes
	}
	if at < locator || string(tail[at-locator:at-locator+4]) != "PK\x06\x07" {
		return 0
	}
	large := make([]byte, 56)
	if _, err := file.ReadAt(large, int64(min(binary.LittleEndian.Uint64(tail[at-locator+8:]), 1<<62))); err != nil || string(large[:4]) != "PK\x06\x06" {
		return 0
	}
	return int64(min(binary.LittleEndian.Uint64(large[40:]), 1<<62))
}
