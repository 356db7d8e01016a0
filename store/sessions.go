package store

import (
	"bytes"
	"context"
	"database/sql"
	"errors"
	"time"

	"brevium/store/scope"
)

// Sessions keeps sessions, as the session manager asks for it.
type Sessions struct{ s *Store }

// Sessions of the store.
func (s *Store) Sessions() Sessions { return Sessions{s} }

// session is one as its table has it.
type session struct {
	Token string
	Data  []byte
	Until int64
}

// All are the sessions that hold: their data, by their tokens as they are kept.
func (x Sessions) All(ctx context.Context) (map[string][]byte, error) {
	var rows []session
	err := x.s.door().at.All(ctx, &rows, scope.Workshop.SQL(`SELECT token, data FROM sessions WHERE until > ?`), x.s.now().UnixMilli())
	out := map[string][]byte{}
	for _, r := range rows {
		out[r.Token] = r.Data
	}
	return out, err
}

// FindCtx gives a session's data, while it holds.
func (x Sessions) FindCtx(ctx context.Context, token string) (data []byte, found bool, err error) {
	err = x.s.door().at.Get(ctx, &data, scope.Workshop.SQL(`SELECT data FROM sessions WHERE token = ? AND until > ?`), token, x.s.now().UnixMilli())
	if errors.Is(err, sql.ErrNoRows) {
		return nil, false, nil
	}
	return data, err == nil, err
}

// commitAfter is how much longer a session has to hold for that alone to be written: it is
// told at every page.
const commitAfter = 5 * time.Minute

// CommitCtx keeps a session, and drops those that have ended.
func (x Sessions) CommitCtx(ctx context.Context, token string, data []byte, until time.Time) error {
	var was session
	door := x.s.door().at
	err := door.Get(ctx, &was, scope.Workshop.SQL(`SELECT data, until FROM sessions WHERE token = ?`), token)
	if err == nil && bytes.Equal(was.Data, data) && until.Sub(time.UnixMilli(was.Until)).Abs() < commitAfter {
		return nil
	}
	return door.In(ctx, func(tx *scope.Tx) error {
		if _, err := tx.Do(ctx, scope.Workshop.SQL(`DELETE FROM sessions WHERE until <= ?`), x.s.now().UnixMilli()); err != nil {
			return err
		}
		_, err := tx.Do(ctx, scope.Workshop.SQL(`REPLACE INTO sessions (token, data, until) VALUES (?, ?, ?)`), token, data, until.UnixMilli())
		return err
	})
}

// DeleteCtx ends a session.
func (x Sessions) DeleteCtx(ctx context.Context, token string) error {
	_, err := x.s.door().at.Do(ctx, scope.Workshop.SQL(`DELETE FROM sessions WHERE token = ?`), token)
	return err
}

// Find, Commit and Delete are the same without a context.
func (x Sessions) Find(token string) ([]byte, bool, error) {
	return x.FindCtx(context.Background(), token)
}

// Commit keeps a session.
func (x Sessions) Commit(token string, data []byte, until time.Time) error {
	return x.CommitCtx(context.Background(), token, data, until)
}

// Delete ends a session.
func (x Sessions) Delete(token string) error { return x.DeleteCtx(context.Background(), token) }
