package store

import (
	"bufio"
	"context"
	"errors"
	"fmt"
	"os"
	"os/exec"
	"path/filepath"
	"strings"
	"testing"

	"brevium/core/design"
	"brevium/core/measure"
	"brevium/store/boxshelf"
	"brevium/store/desk"
)

func open(t *testing.T, file string) *Store {
	t.Helper()
	s, err := Open(t.Context(), file)
	if err != nil {
		t.Fatal(err)
	}
	t.Cleanup(func() { s.Close() })
	return s
}

func fresh(t *testing.T) *Store { return open(t, filepath.Join(t.TempDir(), "b.db")) }

func trayOf(name string, length measure.Length) design.Inputs {
	in := design.New(name, measure.MM, "tray")
	in.Size["length"] = length
	return in
}

func add(t *testing.T, s *Store, in design.Inputs) int64 {
	t.Helper()
	id, err := s.Of(t.Context()).Add(t.Context(), in)
	if err != nil {
		t.Fatal(err)
	}
	return id
}

func get(t *testing.T, s *Store, id int64) boxshelf.Box {
	t.Helper()
	b, err := s.Of(t.Context()).Box(t.Context(), id)
	if err != nil {
		t.Fatal(err)
	}
	return b
}

func must(t *testing.T, err error) {
	t.Helper()
	if err != nil {
		t.Fatal(err)
	}
}

const mm = measure.Millimetre

func TestBoxesComeBack(t *testing.T) {
	file := filepath.Join(t.TempDir(), "b.db")
	s := open(t, file)
	id := add(t, s, trayOf("figs", 90*mm))
	must(t, s.Close())
	s = open(t, file)
	if b := get(t, s, id); b.Name != "figs" || b.Inputs.Size["length"] != 90*mm || b.Last.What != "" {
		t.Errorf("the box came back as %+v", b)
	}
	must(t, s.Ping(t.Context()))
}

func TestCopyDeleteRestore(t *testing.T) {
	s := fresh(t)
	id := add(t, s, trayOf("figs", 90*mm))
	copied, err := s.Of(t.Context()).Copy(t.Context(), id)
	must(t, err)
	if b := get(t, s, copied); b.Name != "figs, copy" || b.Inputs.Name != b.Name {
		t.Errorf("the copy is %q", b.Name)
	}
	must(t, s.Of(t.Context()).Delete(t.Context(), id))
	if _, err := s.Of(t.Context()).Box(t.Context(), id); !errors.Is(err, desk.ErrNotFound) {
		t.Errorf("a deleted box gives %v", err)
	}
	if all, err := s.Of(t.Context()).Boxes(t.Context()); err != nil || len(all) != 1 {
		t.Errorf("%d boxes are listed, %v", len(all), err)
	}
	must(t, s.Of(t.Context()).BringBack(t.Context(), desk.BoxSort, id))
	if b := get(t, s, id); b.Name != "figs" {
		t.Errorf("restored as %q", b.Name)
	}
}

func TestWhatIsNotThere(t *testing.T) {
	s := fresh(t)
	ctx := t.Context()
	_, copied := s.Of(ctx).Copy(ctx, 9)
	_, got := s.Of(ctx).Box(ctx, 9)
	for name, err := range map[string]error{
		"box": got, "copy": copied, "save": s.Of(ctx).Save(ctx, 9, trayOf("x", mm), boxshelf.Edit{What: "x"}), "undo": s.Of(ctx).Undo(ctx, 9, 1, ""), "delete": s.Of(ctx).Delete(ctx, 9),
		"restore": s.Of(ctx).BringBack(ctx, desk.BoxSort, 9), "tick": s.Of(ctx).Tick(ctx, 9, "cut/base", "m", true),
	} {
		if !errors.Is(err, desk.ErrNotFound) {
			t.Errorf("%s: got %v; want ErrNotFound", name, err)
		}
	}
}

func TestTicks(t *testing.T) {
	s := fresh(t)
	id := add(t, s, trayOf("figs", 90*mm))
	must(t, s.Of(t.Context()).Tick(t.Context(), id, "cut/base", "one", true))
	must(t, s.Of(t.Context()).Tick(t.Context(), id, "cut/base", "two", true))
	must(t, s.Of(t.Context()).Tick(t.Context(), id, "cut/lid", "x", true))
	must(t, s.Of(t.Context()).Tick(t.Context(), id, "cut/lid", "x", false))
	got, err := s.Of(t.Context()).Ticks(t.Context(), id)
	if err != nil || len(got) != 2 || got["cut/base"] != "two" || got["cut/lid"] != "" {
		t.Errorf("ticks %v, %v", got, err)
	}
}

// The child of TestKillLosesNothingAnswered: saves over and over, and answers
// each save with a line once it has returned.
func TestMain(m *testing.M) {
	if file := os.Getenv("BREVIUM_SAVER"); file != "" {
		saveForever(file)
		return
	}
	os.Exit(m.Run())
}

func saveForever(file string) {
	ctx := context.Background()
	s, err := Open(ctx, file)
	if err != nil {
		fmt.Println("fail", err)
		return
	}
	id, err := s.Of(ctx).Add(ctx, trayOf("saved", mm))
	for n := 1; err == nil; n++ {
		var b boxshelf.Box
		if b, err = s.Of(ctx).Box(ctx, id); err != nil {
			break
		}
		if err = s.Of(ctx).Save(ctx, id, trayOf("saved", measure.Length(n)*mm), boxshelf.Edit{From: b.Version, What: fmt.Sprint(n)}); err == nil {
			fmt.Println(id, n)
		}
	}
	fmt.Println("fail", err)
}

// A process killed in the middle of its saves loses none it has answered.
func TestKillLosesNothingAnswered(t *testing.T) {
	for _, saves := range []int{1, 37, 100} {
		file := filepath.Join(t.TempDir(), "b.db")
		child := exec.Command(os.Args[0])
		child.Env = append(os.Environ(), "BREVIUM_SAVER="+file)
		out, err := child.StdoutPipe()
		must(t, err)
		must(t, child.Start())
		var id, last int64
		lines := bufio.NewScanner(out)
		for range saves {
			if !lines.Scan() || strings.HasPrefix(lines.Text(), "fail") {
				t.Fatalf("the saver said %q", lines.Text())
			}
			if _, err := fmt.Sscan(lines.Text(), &id, &last); err != nil {
				t.Fatal(err)
			}
		}
		must(t, child.Process.Kill())
		for lines.Scan() { // what it answered before it died counts too
			fmt.Sscan(lines.Text(), &id, &last)
		}
		if err := child.Wait(); err == nil {
			t.Error("the saver was not killed")
		}
		s := open(t, file)
		// One more save may have been kept than was answered, never one less.
		if got := int64(get(t, s, id).Inputs.Size["length"] / mm); got < last || got > last+1 {
			t.Errorf("after %d answered saves the box holds number %d", last, got)
		}
		var check string
		must(t, s.db.QueryRow(`PRAGMA integrity_check`).Scan(&check))
		if check != "ok" {
			t.Errorf("the database says %q", check)
		}
		must(t, s.Close())
	}
}
