package main

import (
	"bufio"
	"bytes"
	"context"
	"crypto/sha256"
	"encoding/hex"
	"fmt"
	"hash"
	"os"
	"strings"
	"time"

	"brevium/core/design"
	"brevium/core/fault"
	"brevium/draw"
	"brevium/draw/pdf"
)

// compare works n designs out, and writes what comes of each to one file and holds it against
// another; either may be "". It fails where some come to something else.
func compare(seed uint64, n int, keep, same string) error {
	now := comesOf(seed, n)
	if keep != "" {
		if err := os.WriteFile(keep, []byte(strings.Join(now, "\n")+"\n"), 0o644); err != nil {
			return err
		}
	}
	if same == "" {
		return nil
	}
	text, err := os.ReadFile(same)
	if err != nil {
		return err
	}
	other, i := 0, 0
	for lines := bufio.NewScanner(bytes.NewReader(text)); lines.Scan() && i < n; i++ {
		if lines.Text() != now[i] {
			other++
			fmt.Printf("design %d: %s, and was %s\n", i, now[i], lines.Text())
		}
	}
	fmt.Printf("%d designs: %d come to something else\n", i, other)
	if other > 0 {
		return fmt.Errorf("%d of %d designs come to something else", other, i)
	}
	return nil
}

// comesOf is a line for each design: what is refused of it, or the digests of its plan, its
// pictures and its sheet.
func comesOf(seed uint64, n int) []string {
	out := make([]string, n)
	each(seed, n, func(i int, in design.Inputs) {
		err := fault.Guard(func() (err error) {
			out[i], err = digests(in)
			return err
		})
		if err != nil {
			f := fault.Of(err)
			out[i] = fmt.Sprintf("%s at %s: %s", f.Code, f.Field, f.Text)
		}
	})
	return out
}

// day is printed on every sheet.
var day = time.Date(2026, 12, 4, 9, 0, 0, 0, time.UTC)

// digests are of what a design is planned, drawn and printed as.
func digests(in design.Inputs) (string, error) {
	r, err := design.Make(context.Background(), in)
	if err != nil {
		return "", err
	}
	plan, drawn, printed := sha256.New(), sha256.New(), sha256.New()
	text, err := r.Plan()
	if err != nil {
		return "", err
	}
	plan.Write(text)
	m := draw.OpenModelOf(r, false)
	for _, moved := range draw.Moves(r, m, r.Steps) {
		picture, err := moved.Picture(400, 300)
		if err != nil {
			return "", err
		}
		drawn.Write([]byte(picture.Inline()))
	}
	if err := pdf.Write(printed, r, pdf.Print{Paper: pdf.A4, Date: day}); err != nil {
		return "", err
	}
	digest := func(h hash.Hash) string { return hex.EncodeToString(h.Sum(nil)[:8]) }
	return fmt.Sprintf("plan %s, drawn %s, printed %s", digest(plan), digest(drawn), digest(printed)), nil
}
