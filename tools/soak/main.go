// Command soak lets makers use a Brevium at random while everything goes wrong
// that can: it is killed, its disk fills up, its file is locked, its clock
// goes back. Afterwards every change that was answered must be there, the
// database must be sound, and memory must not have grown.
package main

import (
	"context"
	"errors"
	"flag"
	"fmt"
	"log"
	"os"
	"sync"
	"time"
)

func main() {
	lasts := flag.Duration("time", 10*time.Minute, "of the soak")
	makers := flag.Int("makers", 20, "at once")
	serving := flag.String("serve", "", "be the server for this folder (for the soak itself)")
	flag.Parse()
	var err error
	if *serving != "" {
		err = serve(*serving)
	} else {
		err = soak(*lasts, min(*makers, 200))
	}
	if err != nil {
		log.Fatal(err)
	}
}

func soak(lasts time.Duration, makers int) error {
	folder, err := os.MkdirTemp("", "brevium-soak-")
	if err != nil {
		return err
	}
	defer os.RemoveAll(folder)
	s := &server{folder: folder}
	if s.small, err = smallDisk(folder); err != nil {
		log.Printf("the disk cannot be filled here, so that is left out: %v", err)
	} else {
		defer s.small.leave()
	}
	// Every maker has a box of their own, and a thing in one that all share.
	all, shared, err := furnish(folder, makers)
	if err != nil {
		return err
	}
	if err := s.start(); err != nil {
		return err
	}
	defer s.stop()
	ctx, end := context.WithTimeout(context.Background(), lasts)
	defer end()
	var work sync.WaitGroup
	for _, m := range all {
		m.server = s
		work.Go(func() { m.work(ctx) })
	}
	work.Go(func() { attacked(ctx, s, shared) })
	storms := weather(ctx, s)
	work.Wait()
	if err := s.restart(); err != nil {
		return err
	}
	answered, lost := 0, error(nil)
	for _, m := range all {
		answered += m.answered
		lost = errors.Join(lost, m.check())
	}
	sound := s.sound()
	fmt.Printf("%d changes answered by %d makers in %s\n", answered, makers, lasts)
	fmt.Printf("killed %d times, disk filled %d times, file locked %d times, clock set back %d times\n", storms.kills, storms.full, storms.locked, storms.clock)
	fmt.Printf("memory of the server: %d MB after its first minute, %d MB at the end of its longest life\n", s.early, s.late)
	if s.early > 0 && 10*s.late > 13*s.early {
		lost = errors.Join(lost, fmt.Errorf("memory grew from %d to %d MB", s.early, s.late))
	}
	if err := errors.Join(lost, sound); err != nil {
		return err
	}
	fmt.Println("nothing was lost, and the database is sound")
	return nil
}
