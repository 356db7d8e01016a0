package store

import (
	"context"
	"database/sql"
	"encoding/json"
	"slices"

	"brevium/core/cupboard"
	"brevium/core/fault"
)

// MostGoods is how many supplies a cupboard holds.
const MostGoods = 200

// Goods lists the supplies in the cupboard, in the order of their kinds, with what
// jobs under way have set aside.
func (s *Store) Goods(ctx context.Context) ([]cupboard.Good, error) {
	tx, err := s.db.BeginTx(ctx, &sql.TxOptions{ReadOnly: true})
	if err != nil {
		return nil, err
	}
	defer tx.Rollback() // it only reads
	goods, err := goodsIn(ctx, tx, s.here(ctx, ""))
	if err != nil {
		return nil, err
	}
	return goods, each(ctx, tx, `SELECT goods FROM jobs WHERE state = 'begun' AND deleted_at IS NULL`+s.here(ctx, ""), func(r *sql.Rows) error {
		needs, err := needsOf(r)
		goods = cupboard.Reserve(goods, needs)
		return err
	})
}

// goodsIn lists the supplies alone that a condition is true of; what several tables have
// of one is put together.
func goodsIn(ctx context.Context, tx *sql.Tx, which string, args ...any) ([]cupboard.Good, error) {
	var goods []cupboard.Good
	err := each(ctx, tx, `SELECT kind, name, sum(amount), max(price), max(spare) FROM goods WHERE 1`+which+` GROUP BY kind, name ORDER BY name`, func(r *sql.Rows) error {
		var g cupboard.Good
		err := r.Scan(&g.Kind, &g.Name, &g.Amount, &g.Price, &g.Spare)
		goods = append(goods, g)
		return err
	}, args...)
	slices.SortStableFunc(goods, func(a, b cupboard.Good) int {
		return slices.Index(cupboard.Kinds, a.Kind) - slices.Index(cupboard.Kinds, b.Kind)
	})
	return goods, err
}

func needsOf(row interface{ Scan(...any) error }) ([]cupboard.Need, error) {
	var text []byte
	if err := row.Scan(&text); err != nil {
		return nil, err
	}
	var needs []cupboard.Need
	return needs, json.Unmarshal(text, &needs)
}

// SetGoods puts supplies into the cupboard, each in place of the one of its kind
// and name; all of them or none.
func (s *Store) SetGoods(ctx context.Context, goods []cupboard.Good) error {
	return s.in(ctx, func(tx *sql.Tx) error {
		place, err := s.place(ctx, tx)
		if err != nil {
			return err
		}
		for _, g := range goods {
			if err := g.Check(); err != nil {
				return err
			}
			if err := s.setGood(ctx, tx, g, place); err != nil {
				return err
			}
		}
		var n int
		if err := tx.QueryRowContext(ctx, `SELECT count(*) FROM goods WHERE 1`+s.here(ctx, "")).Scan(&n); err != nil {
			return err
		}
		if n > MostGoods {
			return fault.New(fault.TooLarge, "kind", "the cupboard holds %d kinds of supplies at most", MostGoods)
		}
		return nil
	})
}

// setGood puts a supply into the cupboard of a table; one maker alone has one cupboard.
func (s *Store) setGood(ctx context.Context, tx *sql.Tx, g cupboard.Good, place string) error {
	if _, err := tx.ExecContext(ctx, `DELETE FROM goods WHERE kind = ? AND name = ? AND (place = ? OR ?)`, string(g.Kind), g.Name, place, s.who(ctx) == 0); err != nil {
		return err
	}
	_, err := tx.ExecContext(ctx, `INSERT INTO goods (place, kind, name, amount, price, spare) VALUES (?, ?, ?, ?, ?, ?)`,
		place, string(g.Kind), g.Name, g.Amount, g.Price, g.Spare)
	return err
}

// DropGood takes a supply out of the cupboard, or tells ErrNotFound.
func (s *Store) DropGood(ctx context.Context, kind cupboard.Kind, name string) error {
	return s.in(ctx, func(tx *sql.Tx) error {
		return one(tx.ExecContext(ctx, `DELETE FROM goods WHERE kind = ? AND name = ?`+s.here(ctx, ""), string(kind), name))
	})
}

// JobGoods is what a job that was begun has set aside, or used.
func (s *Store) JobGoods(ctx context.Context, id int64) ([]cupboard.Need, error) {
	return needsOf(s.db.QueryRowContext(ctx, `SELECT goods FROM jobs WHERE id = ?`+s.seen(ctx, ""), id))
}

// useUp takes what a job has set aside out of the cupboard; back puts it in again.
func (s *Store) useUp(ctx context.Context, tx *sql.Tx, job int64, back bool) error {
	needs, err := needsOf(tx.QueryRowContext(ctx, `SELECT goods FROM jobs WHERE id = ?`, job))
	if err != nil {
		return err
	}
	if back {
		for i := range needs {
			needs[i].Amount = -needs[i].Amount
		}
	}
	place, err := jobPlace(ctx, tx, job)
	if err != nil {
		return err
	}
	goods, err := goodsIn(ctx, tx, ` AND (place = ? OR ?)`, place, s.who(ctx) == 0)
	if err != nil {
		return err
	}
	for i, g := range cupboard.Take(goods, needs) {
		if g != goods[i] {
			if err := s.setGood(ctx, tx, g, place); err != nil {
				return err
			}
		}
	}
	return nil
}
