package stockroom

import (
	"context"
	"encoding/json"
	"slices"

	"brevium/core/cupboard"
	"brevium/core/fault"
	"brevium/store/desk"
	"brevium/store/scope"
)

// MostGoods is how many supplies a cupboard holds.
const MostGoods = 200

// Goods lists the supplies in the cupboard, in the order of their kinds, with what
// jobs under way have set aside.
func (d *Stockroom) Goods(ctx context.Context) (goods []cupboard.Good, err error) {
	err = d.at.Reading(ctx, func(tx *scope.Tx) error {
		if goods, err = GoodsIn(ctx, tx, scope.Table.SQL(GoodsWhere+`{whose}`+GoodsOrder)); err != nil {
			return err
		}
		begun, err := desk.RowsOf(ctx, tx, needsOf, scope.Table.SQL(`SELECT goods FROM jobs WHERE state = 'begun' AND deleted_at IS NULL AND {whose}`))
		for _, needs := range begun {
			goods = cupboard.Reserve(goods, needs)
		}
		return err
	})
	return goods, err
}

// What several tables have of one is put together.
const (
	GoodsWhere = `SELECT kind, name, sum(amount) AS amount, max(price) AS price, max(spare) AS spare FROM goods WHERE `
	GoodsOrder = ` GROUP BY kind, name ORDER BY name`
)

// GoodsIn lists the supplies alone that a statement gives.
func GoodsIn(ctx context.Context, tx *scope.Tx, s scope.Statement, args ...any) (goods []cupboard.Good, err error) {
	err = tx.All(ctx, &goods, s, args...)
	slices.SortStableFunc(goods, func(a, b cupboard.Good) int {
		return slices.Index(cupboard.Kinds, a.Kind) - slices.Index(cupboard.Kinds, b.Kind)
	})
	return goods, err
}

func needsOf(text []byte) (needs []cupboard.Need, err error) {
	err = json.Unmarshal(text, &needs)
	return needs, err
}

// SetGoods puts supplies into the cupboard, each in place of the one of its kind
// and name; all of them or none.
func (d *Stockroom) SetGoods(ctx context.Context, goods []cupboard.Good) error {
	return d.at.In(ctx, func(tx *scope.Tx) error {
		place, err := d.at.Place(ctx, tx)
		if err != nil {
			return err
		}
		for _, g := range goods {
			if err := g.Check(); err != nil {
				return err
			}
			if err := SetGood(ctx, tx, d.at, g, place); err != nil {
				return err
			}
		}
		var n int
		if err := tx.Get(ctx, &n, scope.Table.SQL(`SELECT count(*) FROM goods WHERE {whose}`)); err != nil {
			return err
		}
		if n > MostGoods {
			return fault.New(fault.TooLarge, "kind", "the cupboard holds %d kinds of supplies at most", MostGoods)
		}
		return nil
	})
}

// SetGood puts a supply into the cupboard of a table; one maker alone has one cupboard.
func SetGood(ctx context.Context, tx *scope.Tx, at desk.Desk, g cupboard.Good, place string) error {
	if _, err := tx.Do(ctx, scope.Held.SQL(`DELETE FROM goods WHERE kind = ? AND name = ? AND (place = ? OR ?)`), string(g.Kind), g.Name, place, at.Asker == scope.Alone); err != nil {
		return err
	}
	_, err := tx.Do(ctx, scope.Held.SQL(`INSERT INTO goods (place, kind, name, amount, price, spare) VALUES (?, ?, ?, ?, ?, ?)`),
		place, string(g.Kind), g.Name, g.Amount, g.Price, g.Spare)
	return err
}

const noGood desk.Absent = "supply of that kind and name"

// DropGood takes a supply out of the cupboard, or tells ErrNotFound.
func (d *Stockroom) DropGood(ctx context.Context, kind cupboard.Kind, name string) error {
	return desk.One(noGood)(d.at.Do(ctx, scope.Table.SQL(`DELETE FROM goods WHERE kind = ? AND name = ? AND {whose}`), string(kind), name))
}

// JobGoods is what a job that was begun has set aside, or used.
func (d *Stockroom) JobGoods(ctx context.Context, id int64) ([]cupboard.Need, error) {
	return desk.RowOf(ctx, d.at, needsOf, desk.NoJob, scope.Seen.SQL(`SELECT goods FROM jobs WHERE id = ? AND {whose}`), id)
}

// UseUp takes what a job has set aside out of the cupboard; back puts it in again.
func UseUp(ctx context.Context, tx *scope.Tx, at desk.Desk, job int64, back bool) error {
	needs, err := desk.RowOf(ctx, tx, needsOf, desk.NoJob, scope.Held.SQL(`SELECT goods FROM jobs WHERE id = ?`), job)
	if err != nil {
		return err
	}
	if back {
		for i := range needs {
			needs[i].Amount = -needs[i].Amount
		}
	}
	place, err := desk.JobPlace(ctx, tx, job)
	if err != nil {
		return err
	}
	goods, err := GoodsIn(ctx, tx, scope.Held.SQL(GoodsWhere+`(place = ? OR ?)`+GoodsOrder), place, at.Asker == scope.Alone)
	if err != nil {
		return err
	}
	for i, g := range cupboard.Take(goods, needs) {
		if g != goods[i] {
			if err := SetGood(ctx, tx, at, g, place); err != nil {
				return err
			}
		}
	}
	return nil
}
