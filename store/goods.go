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
	goods, err := goodsIn(ctx, tx)
	if err != nil {
		return nil, err
	}
	return goods, each(ctx, tx, `SELECT goods FROM jobs WHERE state = 'begun' AND deleted_at IS NULL`, func(r *sql.Rows) error {
		needs, err := needsOf(r)
		goods = cupboard.Reserve(goods, needs)
		return err
	})
}

// goodsIn lists the supplies alone.
func goodsIn(ctx context.Context, tx *sql.Tx) ([]cupboard.Good, error) {
	var goods []cupboard.Good
	err := each(ctx, tx, `SELECT kind, name, amount, price, spare FROM goods ORDER BY name`, func(r *sql.Rows) error {
		var g cupboard.Good
		err := r.Scan(&g.Kind, &g.Name, &g.Amount, &g.Price, &g.Spare)
		goods = append(goods, g)
		return err
	})
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
		for _, g := range goods {
			if err := g.Check(); err != nil {
				return err
			}
			if err := setGood(ctx, tx, g); err != nil {
				return err
			}
		}
		var n int
		if err := tx.QueryRowContext(ctx, `SELECT count(*) FROM goods`).Scan(&n); err != nil {
			return err
		}
		if n > MostGoods {
			return fault.New(fault.TooLarge, "kind", "the cupboard holds %d kinds of supplies at most", MostGoods)
		}
		return nil
	})
}

func setGood(ctx context.Context, tx *sql.Tx, g cupboard.Good) error {
	_, err := tx.ExecContext(ctx, `
		INSERT INTO goods (kind, name, amount, price, spare) VALUES (?, ?, ?, ?, ?)
		ON CONFLICT (kind, name) DO UPDATE SET amount = excluded.amount, price = excluded.price, spare = excluded.spare`,
		string(g.Kind), g.Name, g.Amount, g.Price, g.Spare)
	return err
}

// DropGood takes a supply out of the cupboard, or tells ErrNotFound.
func (s *Store) DropGood(ctx context.Context, kind cupboard.Kind, name string) error {
	return s.in(ctx, func(tx *sql.Tx) error {
		return one(tx.ExecContext(ctx, `DELETE FROM goods WHERE kind = ? AND name = ?`, string(kind), name))
	})
}

// JobGoods is what a job that was begun has set aside, or used.
func (s *Store) JobGoods(ctx context.Context, id int64) ([]cupboard.Need, error) {
	return needsOf(s.db.QueryRowContext(ctx, `SELECT goods FROM jobs WHERE id = ?`+s.seen(ctx, ""), id))
}

// useUp takes what a job has set aside out of the cupboard; back puts it in again.
func useUp(ctx context.Context, tx *sql.Tx, job int64, back bool) error {
	needs, err := needsOf(tx.QueryRowContext(ctx, `SELECT goods FROM jobs WHERE id = ?`, job))
	if err != nil {
		return err
	}
	if back {
		for i := range needs {
			needs[i].Amount = -needs[i].Amount
		}
	}
	goods, err := goodsIn(ctx, tx)
	if err != nil {
		return err
	}
	for i, g := range cupboard.Take(goods, needs) {
		if g != goods[i] {
			if err := setGood(ctx, tx, g); err != nil {
				return err
			}
		}
	}
	return nil
}
