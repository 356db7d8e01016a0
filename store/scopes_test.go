package store_test

import (
	"context"
	"encoding/json"
	"fmt"
	"os"
	"path/filepath"
	"reflect"
	"slices"
	"testing"
	"time"

	"brevium/core/batch"
	"brevium/core/contents"
	"brevium/core/cupboard"
	"brevium/core/design"
	"brevium/core/drawer"
	"brevium/core/logbook"
	"brevium/core/measure"
	"brevium/core/paper"
	"brevium/core/people"
	"brevium/photo"
	"brevium/store"
	"brevium/store/boxshelf"
	"brevium/store/desk"
	"brevium/store/jobbook"
	"brevium/store/roster"
	"brevium/store/storetest"
)

// reach is who gets at something of a maker's.
type reach string

const (
	own      reach = "own"      // its maker alone
	seen     reach = "seen"     // whoever it is shared with, too
	table    reach = "table"    // all who sit at its table
	workshop reach = "workshop" // whoever asks; the door and the pages guard it
)

// deed is one method of a desk, done with what is Ash's. What it gives is nothing where it is
// refused, or an error.
type deed struct {
	reach reach
	do    func(d *store.Desk, ctx context.Context) (any, error)
}

// numbers are those of what is Ash's in the world below.
type numbers struct {
	Box, Other, Gone, Planned, Begun, Finished, Thing, Pile, Seat, Version, Asked int64
	Change                                                                        int64
	Photo                                                                         string
}

// nothing makes a deed of what gives only an error.
func nothing(err error) (any, error) { return err == nil, err }

// deeds are all methods of a desk.
func deeds(n numbers) map[string]deed {
	in := design.New("Jars", measure.In, "tray-lid")
	note := logbook.Note{Box: n.Box, Name: "Jars", Style: "tray-lid", Card: "card", Design: []byte("{}"), Made: time.UnixMilli(1)}
	thing := contents.Thing{Name: "owl", Shape: contents.Block, Length: 1, Width: 1, Height: 1}
	type d = *store.Desk
	type c = context.Context
	return map[string]deed{
		// Boxes.
		"Box":           {seen, func(d d, c c) (any, error) { b, err := d.Box(c, n.Box); return b.ID, err }},
		"Boxes":         {seen, func(d d, c c) (any, error) { return d.Boxes(c) }},
		"Names":         {seen, func(d d, c c) (any, error) { return d.Names(c) }},
		"List":          {seen, func(d d, c c) (any, error) { all, _, err := d.List(c, boxshelf.Listing{Count: 9}); return all, err }},
		"SetMark":       {seen, func(d d, c c) (any, error) { return d.SetMark(c, boxshelf.Favourite, []int64{n.Box}, true) }},
		"SetTag":        {seen, func(d d, c c) (any, error) { return d.SetTag(c, "winter", []int64{n.Box}, true) }},
		"Tags":          {seen, func(d d, c c) (any, error) { return d.Tags(c) }},
		"CountArchived": {seen, func(d d, c c) (any, error) { return d.CountArchived(c) }},
		"History":       {seen, func(d d, c c) (any, error) { return d.History(c, n.Box) }},
		"PastOf":        {seen, func(d d, c c) (any, error) { p, err := d.PastOf(c, n.Box, n.Change); return p.ID, err }},
		"DeleteBoxes":   {own, func(d d, c c) (any, error) { return d.DeleteBoxes(c, []int64{n.Box}) }},
		"BringBoxes":    {own, func(d d, c c) (any, error) { return d.BringBoxes(c, []int64{n.Gone}) }},
		"Copy":          {seen, func(d d, c c) (any, error) { return d.Copy(c, n.Box) }},
		"Save":          {seen, func(d d, c c) (any, error) { return nothing(d.Save(c, n.Box, in, boxshelf.Edit{From: n.Version})) }},
		"State":         {seen, func(d d, c c) (any, error) { s, _, err := d.State(c, n.Box, n.Version, ""); return s.Name, err }},
		"Undo":          {seen, func(d d, c c) (any, error) { return nothing(d.Undo(c, n.Box, n.Change, "")) }},
		"Redo":          {seen, func(d d, c c) (any, error) { return nothing(d.Redo(c, n.Other, n.Change, "")) }},
		"Tick":          {seen, func(d d, c c) (any, error) { return nothing(d.Tick(c, n.Box, "a", "b", true)) }},
		"Ticks":         {seen, func(d d, c c) (any, error) { return d.Ticks(c, n.Box) }},
		"Stand":         {seen, func(d d, c c) (any, error) { return nothing(d.Stand(c, n.Box, boxshelf.Stand{At: 1})) }},
		"Times":         {seen, func(d d, c c) (any, error) { return d.Times(c, n.Box) }},
		"Stamp":         {seen, func(d d, c c) (any, error) { return d.Stamp(c, desk.BoxSort, n.Box) }},
		"Share":         {own, func(d d, c c) (any, error) { return nothing(d.Share(c, desk.BoxSort, n.Box, false)) }},
		"Delete":        {own, func(d d, c c) (any, error) { return nothing(d.Delete(c, n.Box)) }},
		"Link": {own, func(d d, c c) (any, error) {
			code, _, err := d.Link(c, n.Box)
			return code, err
		}},
		"SetLink": {own, func(d d, c c) (any, error) { return nothing(d.SetLink(c, n.Box, false)) }},
		// The bin.
		"Bin":       {own, func(d d, c c) (any, error) { return d.Bin(c) }},
		"BinnedBox": {own, func(d d, c c) (any, error) { return d.BinnedBox(c, n.Gone) }},
		"BringBack": {own, func(d d, c c) (any, error) { return nothing(d.BringBack(c, desk.BoxSort, n.Gone)) }},
		"Forget":    {own, func(d d, c c) (any, error) { return nothing(d.Forget(c, desk.BoxSort, n.Gone)) }},
		"EmptyBin":  {workshop, nil}, // it forgets what Bin lists
		// Jobs.
		"Job":  {seen, func(d d, c c) (any, error) { j, err := d.Job(c, n.Planned); return j.ID, err }},
		"Jobs": {seen, func(d d, c c) (any, error) { return d.Jobs(c) }},
		"SaveJob": {seen, func(d d, c c) (any, error) {
			return nothing(d.SaveJob(c, jobbook.Job{ID: n.Planned, Version: n.Asked, Name: "Other"}, ""))
		}},
		"JobState":    {seen, func(d d, c c) (any, error) { text, _, err := d.JobState(c, n.Planned, n.Asked, ""); return text, err }},
		"BeginJob":    {seen, func(d d, c c) (any, error) { return nothing(d.BeginJob(c, n.Planned, nil, nil)) }},
		"ReleaseJob":  {seen, func(d d, c c) (any, error) { return nothing(d.ReleaseJob(c, n.Begun)) }},
		"FinishJob":   {seen, func(d d, c c) (any, error) { return nothing(d.FinishJob(c, n.Begun, nil)) }},
		"UnfinishJob": {seen, func(d d, c c) (any, error) { return nothing(d.UnfinishJob(c, n.Finished)) }},
		"SaveLayouts": {seen, func(d d, c c) (any, error) { return nothing(d.SaveLayouts(c, n.Planned, []byte(`{"a":1}`))) }},
		"Evenings":    {seen, func(d d, c c) (any, error) { return d.Evenings(c, n.Planned, new(any)) }},
		"SetEvenings": {seen, func(d d, c c) (any, error) { return nothing(d.SetEvenings(c, n.Planned, "late")) }},
		"SetDone":     {seen, func(d d, c c) (any, error) { return nothing(d.SetDone(c, n.Planned, "x", 9)) }},
		"JobGoods":    {seen, func(d d, c c) (any, error) { return d.JobGoods(c, n.Begun) }},
		"DeleteJob":   {own, func(d d, c c) (any, error) { return nothing(d.DeleteJob(c, n.Planned)) }},
		// Classes; who follows comes by a code and a seat's token.
		"ClassOf": {seen, func(d d, c c) (any, error) { k, err := d.ClassOf(c, desk.BoxSort, n.Box); return k.ID, err }},
		"OpenClass": {own, func(d d, c c) (any, error) {
			return nothing(d.OpenClass(c, desk.JobSort, n.Planned, time.Now().Add(time.Hour)))
		}},
		"CloseClass": {own, func(d d, c c) (any, error) { return nothing(d.CloseClass(c, desk.BoxSort, n.Box)) }},
		"FreeSeat":   {own, func(d d, c c) (any, error) { return nothing(d.FreeSeat(c, desk.BoxSort, n.Box, n.Seat)) }},
		"ClassBy":    {workshop, nil}, "Sit": {workshop, nil}, "SeatBy": {workshop, nil}, "Seats": {workshop, nil}, "Move": {workshop, nil}, "StandUp": {workshop, nil},
		"Linked": {workshop, nil}, "JobWith": {workshop, nil},
		// Notes, things, settings, photographs.
		"Notes":      {own, func(d d, c c) (any, error) { return d.Notes(c) }},
		"NotesFrom":  {own, func(d d, c c) (any, error) { return d.NotesFrom(c, 0, 9) }},
		"CountNotes": {own, func(d d, c c) (any, error) { return d.CountNotes(c) }},
		"Felt":       {own, func(d d, c c) (any, error) { return d.Felt(c) }},
		"LoggedNote": {own, func(d d, c c) (any, error) { k, err := d.LoggedNote(c, 1); return k.ID, err }},
		"DropNote":   {own, func(d d, c c) (any, error) { return nothing(d.DropNote(c, 1)) }},
		"Things": {own, func(d d, c c) (any, error) { // the steward has some from the beginning
			all, err := d.Things(c)
			return slices.ContainsFunc(all, func(k boxshelf.KeptThing) bool { return k.ID == n.Thing }), err
		}},
		"DropThing": {own, func(d d, c c) (any, error) { return nothing(d.DropThing(c, n.Thing)) }},
		"Photo":     {seen, func(d d, c c) (any, error) { p, err := d.Photo(c, n.Photo); return p.JPEG, err }},
		"Setting":   {own, func(d d, c c) (any, error) { rate := ""; err := d.Setting(c, "rate", &rate); return rate, err }},
		"Own":       {own, func(d d, c c) (any, error) { all, err := d.Own(c); return all.Boxes, err }},
		// What is new is one's own.
		"Add": {workshop, func(d d, c c) (any, error) { return d.Add(c, in) }}, "AddJob": {workshop, func(d d, c c) (any, error) { return d.AddJob(c, jobbook.Job{Name: "New"}) }},
		"AddNote": {workshop, func(d d, c c) (any, error) { return nothing(d.AddNote(c, note)) }}, "BringNotes": {workshop, func(d d, c c) (any, error) { return d.BringNotes(c, []logbook.Note{note}) }},
		"KeepThing": {workshop, func(d d, c c) (any, error) { return nothing(d.KeepThing(c, thing)) }}, "Set": {workshop, func(d d, c c) (any, error) { return nothing(d.Set(c, "rate", "mine")) }},
		"PutPhoto": {workshop, func(d d, c c) (any, error) {
			return nothing(d.PutPhoto(c, photo.Picture{ID: "new", JPEG: []byte("x"), Wide: 1, High: 1}, false))
		}},
		// The table's.
		"Lots":     {table, func(d d, c c) (any, error) { return d.Lots(c) }},
		"Lot":      {table, func(d d, c c) (any, error) { l, err := d.Lot(c, n.Pile); return l.ID, err }},
		"SetLot":   {table, func(d d, c c) (any, error) { return nothing(d.SetLot(c, n.Pile, 1, 1)) }},
		"SetLook":  {table, func(d d, c c) (any, error) { err := d.SetLook(c, pile.Card); return nil, err }},
		"Goods":    {table, func(d d, c c) (any, error) { return d.Goods(c) }},
		"DropGood": {table, func(d d, c c) (any, error) { return nothing(d.DropGood(c, cupboard.Ribbon, "Red")) }},
		"AddLots":  {workshop, func(d d, c c) (any, error) { return nothing(d.AddLots(c, []drawer.Lot{pile})) }},
		"SetGoods": {workshop, func(d d, c c) (any, error) {
			return nothing(d.SetGoods(c, []cupboard.Good{{Kind: cupboard.Ribbon, Name: "Red", Amount: 9}}))
		}},
		// Who is let in, and what is everybody's or the steward's; the pages let in who may.
		"AddEvent": {workshop, nil}, "Events": {workshop, nil}, "AddPasskey": {workshop, nil}, "DropPasskey": {workshop, nil}, "PasskeyBy": {workshop, nil}, "Passkeys": {workshop, nil}, "UsePasskey": {workshop, nil},
		"Code": {workshop, nil}, "Codes": {workshop, nil}, "DropCodes": {workshop, nil}, "NewCode": {workshop, nil}, "Join": {workshop, nil}, "LetIn": {workshop, nil}, "Leave": {workshop, nil},
		"EndSessions": {workshop, nil}, "HasSteward": {workshop, nil}, "People": {workshop, nil}, "Person": {workshop, nil}, "PersonCalled": {workshop, nil}, "SeePerson": {workshop, nil},
		"SetPassword": {workshop, nil}, "SetPerson": {workshop, nil}, "SetPlace": {workshop, nil}, "Places": {workshop, nil}, "Steward": {workshop, nil},
		"AddStyle": {workshop, nil}, "StrikeStyle": {workshop, nil}, "Styles": {workshop, nil}, "All": {workshop, nil}, "Bring": {workshop, nil},
	}
}

var pile = drawer.Lot{Card: paper.Card{Name: "Gold card", GSM: 220, Thickness: 250 * measure.Micrometre, Direction: paper.NoDirection}, Sheet: "A4", Width: 210 * measure.Millimetre, Height: 297 * measure.Millimetre, Count: 5}

// A new method of a desk is entered above, with whom it may reach.
func TestEveryDeedIsInTheTable(t *testing.T) {
	all := deeds(numbers{})
	desk := reflect.TypeFor[*store.Desk]()
	for i := range desk.NumMethod() {
		if _, known := all[desk.Method(i).Name]; !known {
			t.Errorf("%s is not in the table of deeds", desk.Method(i).Name)
		}
	}
	if len(all) != desk.NumMethod() {
		t.Errorf("%d deeds, %d methods", len(all), desk.NumMethod())
	}
}

var testPepper = people.NewPepper()

// built is a workshop in which Ash, at a table of hers with Fern, has something of everything,
// kept to herself or shared.
func built(shared bool) (file []byte, n numbers, err error) {
	folder, err := os.MkdirTemp("", "brevium-scopes-")
	if err != nil {
		return nil, n, err
	}
	defer os.RemoveAll(folder)
	ctx, path := context.Background(), filepath.Join(folder, "b.db")
	s, err := store.Open(ctx, path)
	if err != nil {
		return nil, n, err
	}
	if err := s.Workshop(ctx, testPepper); err != nil {
		return nil, n, err
	}
	var failed []error
	ok := func(err error) { failed = append(failed, err) }
	door, ids := s.For(people.Person{}), map[string]int64{}
	for _, p := range []struct {
		name string
		role people.Role
	}{{"Wren", people.Steward}, {"Ash", people.Maker}, {"Fern", people.Maker}, {"Rowan", people.Maker}, {"Gil", people.Guest}} {
		kind := roster.ForJoining
		if p.role == people.Steward {
			kind = roster.ForSetUp
		}
		code, err := door.NewCode(ctx, roster.Code{For: kind, Role: p.role, Until: time.Now().Add(time.Hour)})
		ok(err)
		who, err := door.Join(ctx, code.Text, p.name, "hash")
		ok(err)
		ids[p.name] = who.ID
	}
	ok(door.SetPlace(ctx, ids["Ash"], "Ash's"))
	ok(door.SetPlace(ctx, ids["Fern"], "Ash's"))
	ash := s.For(people.Person{ID: ids["Ash"]})
	in := design.New("Jars", measure.In, "tray-lid")
	n.Photo = "0123456789abcdef"
	ok(ash.PutPhoto(ctx, photo.Picture{ID: n.Photo, JPEG: []byte("picture"), Wide: 1, High: 1}, false))
	in.Card.Look.Photo.ID = n.Photo
	add := func() int64 { id, err := ash.Add(ctx, in); ok(err); return id }
	n.Box, n.Other, n.Gone = add(), add(), add()
	ok(ash.Delete(ctx, n.Gone))
	for _, id := range []int64{n.Box, n.Other} {
		b, err := ash.Box(ctx, id)
		ok(err)
		b.Inputs.Copies = 3
		ok(ash.Save(ctx, id, b.Inputs, boxshelf.Edit{From: b.Version, What: "copies"}))
	}
	other, err := ash.Box(ctx, n.Other)
	ok(err)
	ok(ash.Undo(ctx, n.Other, other.Last.ID, ""))
	_, err = ash.SetTag(ctx, "fair", []int64{n.Box}, true)
	ok(err)
	_, err = ash.SetMark(ctx, boxshelf.Archived, []int64{n.Other}, true)
	ok(err)
	b, err := ash.Box(ctx, n.Box)
	ok(err)
	n.Version, n.Change = b.Version, b.Last.ID
	ok(ash.Tick(ctx, n.Box, "step", "said", true))
	ok(ash.Stand(ctx, n.Box, boxshelf.Stand{At: 2, Step: "cut", Took: logbook.Took{Kind: "cut", Seconds: 9, Usual: 8}}))
	ok(ash.SetLink(ctx, n.Box, true))
	ok(ash.OpenClass(ctx, desk.BoxSort, n.Box, time.Now().Add(time.Hour)))
	class, err := ash.ClassOf(ctx, desk.BoxSort, n.Box)
	ok(err)
	_, err = ash.Sit(ctx, class.ID, "Pip", "")
	ok(err)
	seats, err := ash.Seats(ctx, class.ID)
	ok(err)
	n.Seat = seats[0].ID
	job := func(name string) int64 {
		id, err := ash.AddJob(ctx, jobbook.Job{Name: name, Items: []jobbook.JobItem{{Box: n.Box, Copies: 2}}})
		ok(err)
		ok(ash.SetDone(ctx, id, "x", 1))
		return id
	}
	n.Planned, n.Begun, n.Finished = job("Planned"), job("Begun"), job("Finished")
	need := []cupboard.Need{{Kind: cupboard.Ribbon, Name: "Red", Amount: 1}}
	ok(ash.SetGoods(ctx, []cupboard.Good{{Kind: cupboard.Ribbon, Name: "Red", Amount: 20}}))
	ok(ash.AddLots(ctx, []drawer.Lot{pile}))
	lots, err := ash.Lots(ctx)
	ok(err)
	n.Pile = lots[0].ID
	for _, id := range []int64{n.Begun, n.Finished} {
		ok(ash.BeginJob(ctx, id, []batch.Stock{}, need))
	}
	ok(ash.FinishJob(ctx, n.Finished, nil))
	planned, err := ash.Job(ctx, n.Planned)
	ok(err)
	n.Asked = planned.Version
	ok(ash.KeepThing(ctx, contents.Thing{Name: "owl", Shape: contents.Block, Length: 1, Width: 1, Height: 1}))
	things, err := ash.Things(ctx)
	ok(err)
	n.Thing = things[0].ID
	ok(ash.AddNote(ctx, logbook.Note{Box: n.Box, Name: "Jars", Style: "tray-lid", Card: "card", Felt: []logbook.Felt{}, Design: []byte("{}"), Made: time.UnixMilli(2)}))
	ok(ash.Set(ctx, "rate", "hers"))
	if shared {
		for _, id := range []int64{n.Box, n.Other} {
			ok(ash.Share(ctx, desk.BoxSort, id, true))
		}
		for _, id := range []int64{n.Planned, n.Begun, n.Finished} {
			ok(ash.Share(ctx, desk.JobSort, id, true))
		}
	}
	for _, err := range append(failed, s.Close()) {
		if err != nil {
			return nil, n, err
		}
	}
	file, err = os.ReadFile(path)
	return file, n, err
}

// world is such a workshop with everybody's desks.
type world struct {
	s     *store.Store
	desks map[string]*store.Desk
}

func open(t *testing.T, file []byte) world {
	t.Helper()
	path := filepath.Join(storetest.Folder(t), "b.db")
	if err := os.WriteFile(path, file, 0o600); err != nil {
		t.Fatal(err)
	}
	s := storetest.At(t, path)
	if err := s.Workshop(t.Context(), testPepper); err != nil {
		t.Fatal(err)
	}
	w := world{s, map[string]*store.Desk{"nobody": s.For(people.Person{})}}
	all, err := w.desks["nobody"].People(t.Context())
	if err != nil {
		t.Fatal(err)
	}
	for _, p := range all {
		w.desks[p.Name] = s.For(p)
	}
	return w
}

// hers is all that Ash has, as text: it stays the same while others are refused.
func (w world) hers(t *testing.T, n numbers) string {
	t.Helper()
	ctx, ash := t.Context(), w.desks["Ash"]
	out := []any{}
	for _, get := range []func() (any, error){
		func() (any, error) { return ash.Own(ctx) }, func() (any, error) { return ash.Lots(ctx) }, func() (any, error) { return ash.Goods(ctx) }, func() (any, error) { return ash.Bin(ctx) },
		func() (any, error) { return ash.Notes(ctx) }, func() (any, error) { return ash.Things(ctx) },
		func() (any, error) { code, is, err := ash.Link(ctx, n.Box); return []any{code, is}, err },
		func() (any, error) { return ash.Stamp(ctx, store.ClassSort, n.Box) },
		func() (any, error) { return ash.Stamp(ctx, desk.BoxSort, n.Box) },
		func() (any, error) { return ash.Jobs(ctx) },
	} {
		got, err := get()
		if err != nil {
			t.Fatal(err)
		}
		out = append(out, got)
	}
	text, err := json.Marshal(out)
	if err != nil {
		t.Fatal(err)
	}
	return string(text)
}

// Each deed is tried by everybody with what is Ash's, when it is her own and when it is shared:
// who may not gets nothing and changes nothing, and who may does it.
func TestEachStatementAsEverybody(t *testing.T) {
	t.Parallel()
	for _, shared := range []bool{false, true} {
		file, n, err := built(shared)
		if err != nil {
			t.Fatal(err)
		}
		for name, x := range deeds(n) {
			if x.do == nil {
				continue
			}
			t.Run(fmt.Sprintf("%s, shared %v", name, shared), func(t *testing.T) {
				t.Parallel()
				var may []string
				w := open(t, file)
				before := w.hers(t, n)
				for _, who := range []string{"nobody", "Wren", "Rowan", "Gil", "Fern", "Ash"} {
					if x.reach == workshop || allowed(x.reach, who, shared) {
						may = append(may, who)
						continue
					}
					if got, err := x.do(w.desks[who], t.Context()); err == nil && !empty(got) {
						t.Errorf("%s gets %v", who, got)
					}
				}
				if w.hers(t, n) != before {
					t.Errorf("something of Ash's was changed")
				}
				for _, who := range []string{may[0], may[len(may)-1]} { // others are let in as these are
					w := open(t, file)
					before := w.hers(t, n)
					got, err := x.do(w.desks[who], t.Context())
					if x.reach != workshop && (err != nil || empty(got) && name != "SetLook") {
						t.Errorf("%s gets %v: %v", who, got, err)
					}
					// What is new is of whoever made it, and nothing of Ash's.
					if x.reach == workshop && who != "Ash" && who != "Fern" && w.hers(t, n) != before {
						t.Errorf("what %s makes is Ash's", who)
					}
				}
			})
		}
	}
}

// allowed says who reaches what is Ash's; Fern sits at her table.
func allowed(of reach, who string, shared bool) bool {
	switch of {
	case seen:
		return who == "Ash" || shared && who != "nobody"
	case table:
		return who == "Ash" || who == "Fern"
	default:
		return who == "Ash"
	}
}

// empty tells nothing: no number, no text, no rows, or that it was not done.
func empty(x any) bool {
	v := reflect.ValueOf(x)
	if !v.IsValid() {
		return true
	}
	switch v.Kind() {
	case reflect.Slice, reflect.Map, reflect.String:
		return v.Len() == 0
	}
	return v.IsZero()
}
