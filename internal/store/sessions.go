package store

import (
	"context"
	"database/sql"
	"errors"
	"fmt"
	"slices"
	"time"
)

// sessionTime is how the times of sessions are written for SQLite's julianday.
const sessionTime = "2006-01-02T15:04:05.999"

// Sessions keep sign-ins, for the session library: its CtxStore.
type Sessions struct{ s *Store }

// Sessions are the sign-ins of the studio.
func (s *Store) Sessions() Sessions { return Sessions{s} }

// DropOldSessions removes the sign-ins that have run out.
func (s *Store) DropOldSessions(ctx context.Context) error {
	if _, err := s.write.ExecContext(ctx, `DELETE FROM sessions WHERE expiry < julianday('now')`); err != nil {
		return fmt.Errorf("removing old sessions: %w", err)
	}
	return nil
}

// FindCtx reads a session that has not run out or ended.
func (x Sessions) FindCtx(ctx context.Context, token string) (data []byte, ok bool, err error) {
	if _, over := x.s.ended.Load(token); over {
		return nil, false, nil
	}
	err = x.s.read.QueryRowContext(ctx, `SELECT data FROM sessions WHERE token = ? AND julianday('now') < expiry`, token).Scan(&data)
	if errors.Is(err, sql.ErrNoRows) {
		return nil, false, nil
	}
	return data, err == nil, err
}

// CommitCtx keeps a session until expiry.
func (x Sessions) CommitCtx(ctx context.Context, token string, data []byte, expiry time.Time) error {
	_, err := x.s.write.ExecContext(ctx, `REPLACE INTO sessions (token, data, expiry) VALUES (?, ?, julianday(?))`,
		token, data, expiry.UTC().Format(sessionTime))
	return err
}

// DeleteCtx ends a session. Where the disk is full or cannot be written it is remembered as ended until the
// program stops: who signs out is out.
func (x Sessions) DeleteCtx(ctx context.Context, token string) error {
	_, err := x.s.write.ExecContext(ctx, `DELETE FROM sessions WHERE token = ?`, token)
	if slices.Contains([]Trouble{DiskFull, ReadOnly, DiskFailed}, TroubleOf(err)) {
		x.s.ended.Store(token, true)
		return nil
	}
	return err
}

// Find, Commit and Delete are for the library's older interface, which it does not use
// where it finds this one.

// Find is [Sessions.FindCtx] without a context.
func (x Sessions) Find(token string) ([]byte, bool, error) {
	return x.FindCtx(context.Background(), token)
}

// Commit is [Sessions.CommitCtx] without a context.
func (x Sessions) Commit(token string, data []byte, expiry time.Time) error {
	return x.CommitCtx(context.Background(), token, data, expiry)
}

// Delete is [Sessions.DeleteCtx] without a context.
func (x Sessions) Delete(token string) error { return x.DeleteCtx(context.Background(), token) }
