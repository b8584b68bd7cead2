package store

import (
	"context"
	"fmt"
	"log/slog"
	"path/filepath"
	"slices"
	"strings"
	"time"
)

// eraseEvery is how often emptying the log is tried again while somebody reads in it.
const eraseEvery = time.Second

// erase empties the log beside the file, in which what was deleted still stands. Where others read in it
// for longer than is waited, it is tried again until it is done; [Tx.Remains] says so.
func (s *Tx) erase(ctx context.Context) error {
	if s.tx != nil {
		*s.erases = true
		return nil
	}
	done, err := s.emptyLog(ctx)
	if err != nil {
		return fmt.Errorf("emptying the log after deleting: %w", err)
	}
	if done || !s.erasing.CompareAndSwap(false, true) {
		return nil
	}
	s.tasks.Go(func() {
		again := time.NewTicker(eraseEvery)
		defer again.Stop()
		for {
			select {
			case <-s.closing: // closing the file empties the log
				return
			case <-again.C:
			}
			ctx, cancel := context.WithTimeout(context.Background(), eraseEvery)
			done, err := s.emptyLog(ctx)
			cancel()
			if err != nil {
				slog.Warn("emptying the log after deleting", "error", err)
			}
			if done {
				s.erasing.Store(false)
				return
			}
		}
	})
	return nil
}

// emptyLog brings all of the log into the file; false where somebody keeps it from that.
func (f *file) emptyLog(ctx context.Context) (done bool, err error) {
	var busy, pages, moved int
	if err := f.writes.QueryRowContext(ctx, `PRAGMA wal_checkpoint(TRUNCATE)`).Scan(&busy, &pages, &moved); err != nil {
		return false, err
	}
	return busy == 0, nil
}

// Remains is where something that was deleted may still stand.
type Remains struct {
	// Log is true while somebody reads in the log beside the file: it is emptied as soon as nobody does.
	Log bool `json:"log" doc:"True while it still stands in the log beside the file; that is emptied as soon as nobody reads in it"`
	// Copies are the names of the copies that were kept beside the studio before an upgrade or when
	// another was put in its place.
	Copies []string `json:"copies" doc:"Copies kept beside the studio, which hold it as it was"`
}

// Remains is where what was deleted may still stand, as far as the studio knows.
func (f *file) Remains() (Remains, error) {
	copies, err := keptBeside(f.path)
	return Remains{Log: f.erasing.Load(), Copies: append([]string{}, copies...)}, err
}

// keptBeside are the names of the copies that were kept beside the studio at path, in order.
func keptBeside(path string) (names []string, err error) {
	for _, made := range []string{".before-v*", ".before-restore-*"} {
		found, err := filepath.Glob(escaped(path) + made)
		if err != nil {
			return nil, fmt.Errorf("looking for copies: %w", err)
		}
		for _, f := range found {
			if filepath.Ext(f) != ".sha256" && !strings.HasSuffix(f, "-wal") && !strings.HasSuffix(f, "-shm") {
				names = append(names, filepath.Base(f))
			}
		}
	}
	slices.Sort(names)
	return names, nil
}

// escaped is a path in which nothing stands for anything else.
func escaped(path string) string {
	out := make([]rune, 0, len(path))
	for _, c := range path {
		if slices.Contains([]rune{'*', '?', '[', '\\'}, c) {
			out = append(out, '\\')
		}
		out = append(out, c)
	}
	return string(out)
}
