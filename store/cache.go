package store

import (
	"context"
	"database/sql"
	"errors"
	"fmt"
	"os"
	"sync"
)

// Cache keeps what was worked out from inputs, such as pictures, in a file of
// its own beside the data, so that a restart need not do it again. It may be
// lost or deleted at any time. A nil cache keeps nothing.
type Cache struct {
	db      *sql.DB
	news    chan cached
	writing sync.WaitGroup
}

type cached struct{ key, value []byte }

// mostCached bounds the rows of a cache; the oldest go first.
const mostCached = 20_000

// OpenCache opens or makes a cache. What another mark kept is not believed:
// the mark tells one build of the program from another. A file that cannot be
// opened is made anew.
func OpenCache(ctx context.Context, file, mark string) (*Cache, error) {
	db, err := cacheDB(ctx, file, mark)
	if err != nil {
		for _, part := range []string{"", "-wal", "-shm"} {
			if err := os.Remove(file + part); err != nil && !errors.Is(err, os.ErrNotExist) {
				return nil, err
			}
		}
		if db, err = cacheDB(ctx, file, mark); err != nil {
			return nil, err
		}
	}
	c := &Cache{db: db, news: make(chan cached, 256)}
	c.writing.Go(c.write)
	return c, nil
}

func cacheDB(ctx context.Context, file, mark string) (*sql.DB, error) {
	made, err := os.OpenFile(file, os.O_CREATE|os.O_RDWR, 0o600)
	if err != nil {
		return nil, err
	}
	if err := made.Close(); err != nil {
		return nil, err
	}
	db, err := sql.Open("sqlite", source(file, "journal_mode(WAL)", "synchronous(OFF)", "busy_timeout(2000)"))
	if err != nil {
		return nil, err
	}
	for _, x := range []struct {
		query string
		args  []any
	}{
		{`CREATE TABLE IF NOT EXISTS mark (mark TEXT PRIMARY KEY)`, nil},
		{`CREATE TABLE IF NOT EXISTS cached (id INTEGER PRIMARY KEY AUTOINCREMENT, key BLOB NOT NULL UNIQUE, value BLOB NOT NULL)`, nil},
		{`DELETE FROM cached WHERE NOT EXISTS (SELECT 1 FROM mark WHERE mark = ?)`, []any{mark}},
		{`DELETE FROM mark WHERE mark <> ?`, []any{mark}},
		{`INSERT INTO mark VALUES (?) ON CONFLICT DO NOTHING`, []any{mark}},
	} {
		if _, err := db.ExecContext(ctx, x.query, x.args...); err != nil {
			return nil, errors.Join(fmt.Errorf("the cache %s: %w", file, err), db.Close())
		}
	}
	return db, nil
}

// Get gives what is kept under a key.
func (c *Cache) Get(key []byte) ([]byte, bool) {
	if c == nil {
		return nil, false
	}
	var value []byte
	err := c.db.QueryRow(`SELECT value FROM cached WHERE key = ?`, key).Scan(&value)
	return value, err == nil
}

// Put keeps a value soon, or not at all when there is too much to do.
func (c *Cache) Put(key, value []byte) {
	if c == nil {
		return
	}
	select {
	case c.news <- cached{key, value}:
	default: // it is worked out again some day
	}
}

// write takes in what there is, many at a time.
func (c *Cache) write() {
	for first := range c.news {
		batch := []cached{first}
	more:
		for len(batch) < cap(c.news) {
			select {
			case next, open := <-c.news:
				if !open {
					break more
				}
				batch = append(batch, next)
			default:
				break more
			}
		}
		// A cache that cannot be written is as good as an empty one.
		_ = c.put(batch)
	}
}

func (c *Cache) put(batch []cached) error {
	tx, err := c.db.Begin()
	if err != nil {
		return err
	}
	for _, x := range batch {
		if _, err := tx.Exec(`INSERT INTO cached (key, value) VALUES (?, ?) ON CONFLICT DO NOTHING`, x.key, x.value); err != nil {
			return errors.Join(err, tx.Rollback())
		}
	}
	if _, err := tx.Exec(`DELETE FROM cached WHERE id <= (SELECT max(id) FROM cached) - ?`, mostCached); err != nil {
		return errors.Join(err, tx.Rollback())
	}
	return tx.Commit()
}

// Close writes what there still is and closes the cache.
func (c *Cache) Close() error {
	if c == nil {
		return nil
	}
	close(c.news)
	c.writing.Wait()
	return c.db.Close()
}
