package archive

import (
	"archive/zip"
	"errors"
	"io"
	"os"
)

// Rows writes what the archive is of, and its rows, as [Reader] reads them: rows hands over
// each with the table it is from, table by table. They are all taken in before any is
// sent, so that a slow line holds nothing up.
func (w *Writer) Rows(a About, rows func(row func(table string, row []byte) error) error) (err error) {
	if err := w.JSON(aboutName, a); err != nil {
		return err
	}
	file, err := os.CreateTemp("", "manudrill-rows-")
	if err != nil {
		return err
	}
	defer func() { err = errors.Join(err, file.Close()) }()
	if err := os.Remove(file.Name()); err != nil {
		return err
	}
	between := &Writer{zip: zip.NewWriter(file), made: w.made}
	if err := between.rowsOf(rows); err != nil {
		return err
	}
	if err := between.zip.Close(); err != nil {
		return err
	}
	return w.copyOf(file)
}

func (w *Writer) rowsOf(rows func(row func(table string, row []byte) error) error) error {
	var to io.Writer
	last := ""
	return rows(func(table string, row []byte) error {
		if table != last {
			f, err := w.create("rows/"+table+".jsonl", zip.Deflate)
			if err != nil {
				return err
			}
			to, last = f, table
		}
		if _, err := to.Write(row); err != nil {
			return err
		}
		_, err := io.WriteString(to, "\n")
		return err
	})
}

// copyOf takes all that is in another archive over as it is.
func (w *Writer) copyOf(file *os.File) error {
	size, err := file.Seek(0, io.SeekEnd)
	if err != nil {
		return err
	}
	z, err := zip.NewReader(file, size)
	if err != nil {
		return err
	}
	for _, f := range z.File {
		if err := w.zip.Copy(f); err != nil {
			return err
		}
	}
	return nil
}
