package store

import (
	"context"
	"errors"
	"fmt"
	"io"
	"io/fs"
	"os"
	"path/filepath"
	"time"

	"github.com/google/uuid"
	"github.com/jackc/pgx/v5"
)

// inFolder keeps each sound as a file, takes/ID below the folder.
type inFolder string

func (f inFolder) takes() string { return filepath.Join(string(f), "takes") }

func (f inFolder) name(take uuid.UUID) string { return filepath.Join(f.takes(), take.String()) }

func (f inFolder) answers(context.Context) error {
	if info, err := os.Stat(string(f)); err != nil {
		return err
	} else if !info.IsDir() {
		return fmt.Errorf("%s is no folder", f)
	}
	return os.MkdirAll(f.takes(), 0o700)
}

// put writes the sound beside and puts it in its place when it is whole and on the disk.
func (f inFolder) put(_ context.Context, _ pgx.Tx, take uuid.UUID, sound io.Reader) (size int64, err error) {
	file, err := os.CreateTemp(f.takes(), "coming-")
	if err != nil {
		return 0, err
	}
	defer func() {
		if err != nil {
			err = errors.Join(err, os.Remove(file.Name()))
		}
	}()
	size, err = io.Copy(file, sound)
	if err := errors.Join(err, file.Sync(), file.Close()); err != nil {
		return 0, err
	}
	if err := os.Rename(file.Name(), f.name(take)); err != nil {
		return 0, err
	}
	return size, f.sync()
}

// sync makes the names in the folder safe.
func (f inFolder) sync() error {
	folder, err := os.Open(f.takes())
	if err != nil {
		return err
	}
	return errors.Join(folder.Sync(), folder.Close())
}

func (f inFolder) open(_ context.Context, take uuid.UUID, _ int64) (Sound, error) {
	file, err := os.Open(f.name(take))
	if errors.Is(err, fs.ErrNotExist) {
		return nil, ErrNotFound
	}
	return file, err
}

func (f inFolder) drop(_ context.Context, take uuid.UUID) error {
	if err := os.Remove(f.name(take)); !errors.Is(err, fs.ErrNotExist) {
		return err
	}
	return nil
}

func (f inFolder) each(_ context.Context, tell func(uuid.UUID, time.Time) error) error {
	files, err := os.ReadDir(f.takes())
	if err != nil {
		return err
	}
	for _, file := range files {
		take, err := uuid.Parse(file.Name())
		if err != nil {
			continue // not ours
		}
		info, err := file.Info()
		if errors.Is(err, fs.ErrNotExist) {
			continue // gone meanwhile
		}
		if err != nil {
			return err
		}
		if err := tell(take, info.ModTime()); err != nil {
			return err
		}
	}
	return nil
}
