package roster

import (
	"context"
	"time"

	"brevium/core/fault"
	"brevium/store/desk"
	"brevium/store/scope"
)

// Passkey is a key of a device that a person signs in with; Key is the JSON that it is
// checked against.
type Passkey struct {
	ID     []byte
	Person int64
	Key    []byte
	Since  time.Time
}

const mostPasskeys = 20

// passkeyRow is one as its table has it.
type passkeyRow struct {
	ID, Key       []byte
	Person, Since int64
}

const noPasskey desk.Absent = "passkey"

func (r passkeyRow) passkey() (Passkey, error) {
	return Passkey{r.ID, r.Person, r.Key, time.UnixMilli(r.Since)}, nil
}

// Passkeys are those of a person, the first before all.
func (d *Roster) Passkeys(ctx context.Context, person int64) ([]Passkey, error) {
	return desk.RowsOf(ctx, d.at, passkeyRow.passkey, scope.Workshop.SQL(`SELECT id, person, key, since FROM passkeys WHERE person = ? ORDER BY since, id`), person)
}

// PasskeyBy is the one of an id.
func (d *Roster) PasskeyBy(ctx context.Context, id []byte) (Passkey, error) {
	return desk.RowOf(ctx, d.at, passkeyRow.passkey, noPasskey, scope.Workshop.SQL(`SELECT id, person, key, since FROM passkeys WHERE id = ?`), id)
}

// AddPasskey keeps a new one; that of another person stays theirs.
func (d *Roster) AddPasskey(ctx context.Context, k Passkey) error {
	return d.at.In(ctx, func(tx *scope.Tx) error {
		var n int
		if err := tx.Get(ctx, &n, scope.Workshop.SQL(`SELECT count(*) FROM passkeys WHERE person = ?`), k.Person); err != nil {
			return err
		}
		if n >= mostPasskeys {
			return fault.New(fault.TooLarge, "", "You have %d passkeys; take one away first.", n)
		}
		_, err := tx.Do(ctx, scope.Workshop.SQL(`INSERT INTO passkeys (id, person, key, since) VALUES (?, ?, ?, ?)`), k.ID, k.Person, string(k.Key), d.at.Now().UnixMilli())
		return err
	})
}

// UsePasskey keeps what signing in has changed of one, such as how often it was used.
func (d *Roster) UsePasskey(ctx context.Context, id, key []byte) error {
	return desk.One(noPasskey)(d.at.Do(ctx, scope.Workshop.SQL(`UPDATE passkeys SET key = ? WHERE id = ?`), string(key), id))
}

// DropPasskey takes one of a person away.
func (d *Roster) DropPasskey(ctx context.Context, person int64, id []byte) error {
	return desk.One(noPasskey)(d.at.Do(ctx, scope.Workshop.SQL(`DELETE FROM passkeys WHERE person = ? AND id = ?`), person, id))
}
