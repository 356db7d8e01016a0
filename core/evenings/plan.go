// Package evenings plans a batch: which hand does what on which evening, so that alike
// work is done together, glue sets while other work goes on, and all is ready in time.
package evenings

import (
	"fmt"
	"slices"
	"strings"
	"time"

	"brevium/core/batch"
	"brevium/core/logbook"
	"brevium/core/recipe"
	"brevium/core/style"
)

// Session is a time at the table.
type Session struct{ From, To time.Time }

// Hand is somebody at the table. Can are the kinds of work they do; nil is all.
type Hand struct {
	Name string
	Can  []recipe.Kind
}

func (h Hand) does(k recipe.Kind) bool { return h.Can == nil || slices.Contains(h.Can, k) }

// Tools is how many there are of what only one hand can use at a time.
type Tools struct{ Trimmers, Boards int }

// of is how many hands can do a kind of work at once.
func (t Tools) of(k recipe.Kind) int {
	switch k {
	case recipe.Cut:
		return max(1, t.Trimmers)
	case recipe.Score:
		return max(1, t.Boards)
	}
	return MostHands
}

// MostHands is the most people at a table.
const MostHands = 6

// setting is how long wet glue is left alone before what it holds is worked on; tape
// holds at once.
const setting = 20 * time.Minute

// Task is one kind of work on all copies of a box: steps that follow one another in
// its recipe. It goes on when the task before it, After, has the copy ready; −1 where
// it is the first.
type Task struct {
	Item, After int
	Key         string // stays the same while the design changes
	Box         string
	Kind        recipe.Kind
	Steps       []recipe.Step
	// Each is the seconds for a copy, and First those more for the first of them.
	Each, First  float64
	Set          time.Duration // before the next task
	Copies, Done int
}

// Does says what is done, in the words of its first step or, of several, what to.
func (t Task) Does() string {
	if len(t.Steps) == 1 {
		return t.Steps[0].Text
	}
	return fmt.Sprintf("%s; and %d more of this", t.Steps[0].Text, len(t.Steps)-1)
}

// Seconds is how long so many copies of it take, from one on.
func (t Task) Seconds(first, n int) float64 {
	sum := t.Each * float64(n)
	if first == 0 && n > 0 {
		sum += t.First
	}
	return sum
}

// Tasks takes the boxes of a job apart: runs of the same kind of step, in the order of
// each recipe, at the maker's pace. ids are the boxes', done how many copies of a task
// are done, by its key.
func Tasks(items []batch.Item, ids []int64, paces map[string]logbook.Pace, done map[string]int) []Task {
	var out []Task
	for i, it := range items {
		before := -1
		steps := recipe.ByKind(it.Made.Steps)
		for len(steps) > 0 {
			n := 1
			for n < len(steps) && steps[n].Kind == steps[0].Kind {
				n++
			}
			t := Task{Item: i, After: before, Key: fmt.Sprintf("%d/%s", ids[i], steps[0].Key), Box: it.Inputs.Name, Kind: steps[0].Kind, Steps: steps[:n], Copies: it.Copies}
			one := logbook.Of(paces, string(t.Kind), recipe.Seconds(t.Steps, 1))
			t.Each = logbook.Of(paces, string(t.Kind), recipe.Seconds(t.Steps, 2)) - one
			t.First = one - t.Each
			if t.Kind == recipe.Glue && style.AdhesiveOf(it.Made.Spec).Wet() {
				t.Set = setting
			}
			t.Done = max(0, min(it.Copies, done[t.Key]))
			before = len(out)
			out = append(out, t)
			steps = steps[n:]
		}
	}
	// What is done further on was done before, too.
	for i := len(out) - 1; i >= 0; i-- {
		if a := out[i].After; a >= 0 {
			out[a].Done = max(out[a].Done, out[i].Done)
		}
	}
	return out
}

// Lot is what a hand does at one go: copies of a task, from First on, counted from 0.
type Lot struct {
	Task, Hand, Session int
	First, Copies       int
	From, To            time.Time
}

// Plan is who does what when.
type Plan struct {
	Tasks    []Task
	Sessions []Session
	Hands    []Hand
	Lots     []Lot
	// Left is the work that no session has time for, in seconds; Ready is when the
	// last lot is done, if nothing is left.
	Left  float64
	Ready time.Time
	// Lacking is a kind of work that nobody does, "" for none.
	Lacking recipe.Kind
}

// longest is how long a hand stays at one task at most while others wait for what it gives,
// and turns into how many parts of its share it then parts its work.
const (
	longest = 30 * time.Minute
	turns   = 12
)

// grace is how far a session may run over when all is done by then: nobody comes again for
// two minutes.
const grace = 5 * time.Minute

// Make plans the tasks into the sessions that are not over at a time. The hand that is
// free first is given what saves most: the task it was at, else the same kind of work
// on another box, else what comes first in the recipes. A hand alone goes on with a
// task to its end; of several each gives on what is done after a part of its share, and
// after half an hour at most, so that nobody waits long for work.
func Make(tasks []Task, sessions []Session, hands []Hand, tools Tools, now time.Time) Plan {
	p := &planning{Plan: Plan{Tasks: tasks, Hands: hands}, tools: tools, begun: make([]int, len(tasks)), lots: make([][]int, len(tasks)), order: make([]int, len(tasks))}
	for _, s := range sessions {
		if s.To.After(now) {
			if s.From.Before(now) {
				s.From = now
			}
			p.Sessions = append(p.Sessions, s)
		}
	}
	slices.SortStableFunc(p.Sessions, func(a, b Session) int { return a.From.Compare(b.From) })
	for i, t := range tasks {
		p.begun[i] = t.Done
		if t.Done < t.Copies && !slices.ContainsFunc(hands, func(h Hand) bool { return h.does(t.Kind) }) {
			p.Lacking = t.Kind
		}
		if t.After >= 0 {
			p.order[i] = p.order[t.After] + 1
		}
	}
	p.gives = min(longest, length(p.rest()/float64(turns*max(1, len(hands)))))
	for i := range p.Sessions {
		p.session(i)
	}
	p.Left = p.rest()
	if p.Left == 0 {
		for _, l := range p.Lots {
			if l.To.After(p.Ready) {
				p.Ready = l.To
			}
		}
	}
	return p.Plan
}

type planning struct {
	Plan
	tools Tools
	begun []int         // copies of each task that are done or in a lot
	lots  [][]int       // of each task
	last  []int         // each hand's latest lot in the session, −1 for none
	order []int         // how many tasks of its box come before
	gives time.Duration // how long a hand works before it gives on what it has
}

// rest is the work that is in no lot yet, in seconds.
func (p *planning) rest() float64 {
	sum := 0.0
	for i, t := range p.Tasks {
		if n := t.Copies - p.begun[i]; n > 0 {
			sum += t.Seconds(p.begun[i], n)
		}
	}
	return sum
}

// session gives the hands work until its end, or a little beyond when that does all.
func (p *planning) session(n int) {
	p.until(n, p.Sessions[n].To)
	if rest := p.rest(); rest > 0 && length(rest) <= grace {
		before, lots, begun := slices.Clone(p.lots), len(p.Lots), slices.Clone(p.begun)
		p.until(n, p.Sessions[n].To.Add(grace))
		if p.rest() > 0 {
			p.lots, p.Lots, p.begun = before, p.Lots[:lots], begun
		}
	}
}

// until gives the hands of a session work until a time; where some have some already, each
// goes on after it.
func (p *planning) until(n int, end time.Time) {
	s := Session{p.Sessions[n].From, end}
	free := make([]time.Time, len(p.Hands))
	at := make([]int, len(p.Hands)) // the task each was at
	p.last = make([]int, len(p.Hands))
	for h := range free {
		free[h], at[h], p.last[h] = s.From, -1, -1
	}
	for i, l := range p.Lots {
		if l.Session == n {
			free[l.Hand], at[l.Hand], p.last[l.Hand] = l.To, l.Task, i
		}
	}
	for len(free) > 0 {
		h := 0
		for k := range free {
			if free[k].Before(free[h]) {
				h = k
			}
		}
		if !free[h].Before(s.To) {
			return
		}
		task, copies := p.choose(h, at[h], free[h], s.To)
		if task < 0 {
			free[h] = p.next(free[h], s.To)
			continue
		}
		l := Lot{Task: task, Hand: h, Session: n, First: p.begun[task], Copies: copies, From: free[h]}
		l.To = l.From.Add(length(p.Tasks[task].Seconds(l.First, copies)))
		p.begun[task] += copies
		p.last[h] = len(p.Lots)
		p.lots[task] = append(p.lots[task], len(p.Lots))
		p.Lots = append(p.Lots, l)
		free[h], at[h] = l.To, task
	}
}

func length(seconds float64) time.Duration { return time.Duration(seconds * float64(time.Second)) }

// choose finds what a hand does next, and how many copies; −1 for nothing.
func (p *planning) choose(h, at int, now, end time.Time) (task, copies int) {
	task = -1
	best := [4]int{}
	for i, t := range p.Tasks {
		if !p.Hands[h].does(t.Kind) || p.begun[i] == t.Copies || p.busy(t.Kind, now) >= p.tools.of(t.Kind) {
			continue
		}
		n := p.fitting(i, p.ready(i, now)-p.begun[i], end.Sub(now))
		if n <= 0 {
			continue
		}
		// Less is better: another task, another kind, far on in the recipe, few at once.
		rank := [4]int{1, 1, p.order[i], -n}
		if i == at {
			rank[0] = 0
		}
		if at >= 0 && p.Tasks[at].Kind == t.Kind {
			rank[1] = 0
		}
		if task < 0 || slices.Compare(rank[:], best[:]) < 0 {
			task, copies, best = i, n, rank
		}
	}
	return task, copies
}

// ready is how many copies of a task could be worked on at a time.
func (p *planning) ready(task int, now time.Time) int {
	t := p.Tasks[task]
	if t.After < 0 {
		return t.Copies
	}
	before := p.Tasks[t.After]
	n := before.Done
	for _, k := range p.lots[t.After] {
		if l := p.Lots[k]; !l.To.Add(before.Set).After(now) {
			n += l.Copies
		}
	}
	return n
}

// fitting is how many of some copies a hand does before a session ends or it gives on
// what it has.
func (p *planning) fitting(task, n int, left time.Duration) int {
	t := p.Tasks[task]
	if len(p.Hands) > 1 {
		left = min(left, max(p.gives, length(t.First+t.Each)))
	}
	room := left.Seconds()
	if p.begun[task] == 0 {
		room -= t.First
	}
	if t.Each > 0 {
		n = min(n, int(room/t.Each+1e-9))
	}
	return n
}

// busy is how many hands are at a kind of work at a time.
func (p *planning) busy(k recipe.Kind, now time.Time) int {
	n := 0
	for _, i := range p.last {
		if i >= 0 && p.Tasks[p.Lots[i].Task].Kind == k && p.Lots[i].To.After(now) {
			n++
		}
	}
	return n
}

// next is when something may be there to do: a lot is done, or its glue has set.
func (p *planning) next(now, end time.Time) time.Time {
	out := end
	for i := len(p.Lots) - 1; i >= 0 && p.Lots[i].Session == p.Lots[len(p.Lots)-1].Session; i-- {
		l := p.Lots[i]
		for _, at := range []time.Time{l.To, l.To.Add(p.Tasks[l.Task].Set)} {
			if at.After(now) && at.Before(out) {
				out = at
			}
		}
	}
	return out
}

// LatestStart is the last session that one may begin with and still be ready; false
// when even all of them are too few.
func LatestStart(tasks []Task, sessions []Session, hands []Hand, tools Tools, now time.Time) (Session, bool) {
	all := Make(tasks, sessions, hands, tools, now)
	if all.Left > 0 || len(all.Sessions) == 0 {
		return Session{}, false
	}
	lo, hi := 0, len(all.Sessions)-1 // lo is early enough
	for lo < hi {
		mid := (lo + hi + 1) / 2
		if Make(tasks, all.Sessions[mid:], hands, tools, now).Left == 0 {
			lo = mid
		} else {
			hi = mid - 1
		}
	}
	return all.Sessions[lo], true
}

// Runs are what a hand does in a session, lots of one task that follow one another told as
// one: what is given on in parts is the same work to whoever does it.
func (p Plan) Runs(session, hand int) []Lot {
	var out []Lot
	for _, l := range p.Lots {
		if l.Session != session || l.Hand != hand {
			continue
		}
		if n := len(out) - 1; n >= 0 && out[n].Task == l.Task && out[n].First+out[n].Copies == l.First {
			out[n].Copies, out[n].To = out[n].Copies+l.Copies, l.To
			continue
		}
		out = append(out, l)
	}
	return out
}

// Says tells a lot in a line: "cut 12 of Dice set, the 1st to the 12th".
func (p Plan) Says(l Lot) string {
	t := p.Tasks[l.Task]
	what := map[recipe.Kind]string{
		recipe.Cut: "Cut the blanks of", recipe.Score: "Score", recipe.Fold: "Fold and burnish", recipe.Remove: "Cut away on", recipe.Decorate: "Decorate",
		recipe.Glue: "Glue", recipe.Assemble: "Put together", recipe.Fill: "Fill", recipe.Close: "Close",
	}[t.Kind]
	which := fmt.Sprintf("all %d", t.Copies)
	switch {
	case t.Copies == 1:
		which = "the one"
	case l.Copies == 1:
		which = fmt.Sprintf("number %d of %d", l.First+1, t.Copies)
	case l.Copies < t.Copies:
		which = fmt.Sprintf("%d to %d of %d", l.First+1, l.First+l.Copies, t.Copies)
	}
	return strings.TrimSpace(fmt.Sprintf("%s %s: %s", what, t.Box, which))
}
