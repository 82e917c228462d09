package musicxml

import (
	"archive/zip"
	"bytes"
	"encoding/xml"
	"errors"
	"fmt"
	"io"
	"path"
	"strings"

	"manudrill/core/bounds"
)

// ErrNoScore is returned for a ZIP file without a score in it.
var ErrNoScore = errors.New("there is no MusicXML in this compressed file; save the music as MusicXML (.musicxml or .mxl)")

// container is META-INF/container.xml of a compressed score: which of its files is the
// score (MusicXML 4.0, "Compressed .MXL files").
type container struct {
	Roots []struct {
		Path  string `xml:"full-path,attr"`
		Media string `xml:"media-type,attr"`
	} `xml:"rootfiles>rootfile"`
}

// Uncompressed returns the score of a compressed one (.mxl).
func Uncompressed(b []byte) ([]byte, error) {
	z, err := zip.NewReader(bytes.NewReader(b), int64(len(b)))
	if err != nil {
		return nil, ErrNoScore
	}
	score := ""
	if raw, err := fileOf(z, "META-INF/container.xml"); err == nil {
		var c container
		if xml.Unmarshal(raw, &c) == nil && len(c.Roots) > 0 {
			score = c.Roots[0].Path
		}
	}
	for _, f := range z.File {
		ending := strings.ToLower(path.Ext(f.Name))
		if score == "" && (ending == ".musicxml" || ending == ".xml") && !strings.HasPrefix(f.Name, "META-INF/") {
			score = f.Name
		}
	}
	if score == "" {
		return nil, ErrNoScore
	}
	return fileOf(z, score)
}

// fileOf unpacks one file, within the bound of what is read.
func fileOf(z *zip.Reader, name string) ([]byte, error) {
	f, err := z.Open(name)
	if err != nil {
		return nil, ErrNoScore
	}
	defer f.Close()
	raw, err := io.ReadAll(io.LimitReader(f, bounds.DocumentBytes+1))
	if err != nil {
		return nil, fmt.Errorf("%w (%w)", ErrNoScore, err)
	}
	if len(raw) > bounds.DocumentBytes {
		return nil, bounds.ErrDocumentTooLarge
	}
	return raw, nil
}
