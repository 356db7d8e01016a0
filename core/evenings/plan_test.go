package evenings

import (
	"fmt"
	"math"
	"math/rand/v2"
	"testing"
	"time"

	"brevium/core/batch"
	"brevium/core/design"
	"brevium/core/logbook"
	"brevium/core/measure"
	"brevium/core/recipe"
	"brevium/core/style"
)

// monday is 30 November 2026, at noon.
var monday = time.Date(2026, 11, 30, 12, 0, 0, 0, time.UTC)

func item(t testing.TB, styleID string, copies int, wet bool) batch.Item {
	t.Helper()
	in := design.New("Fair "+styleID, measure.In, styleID)
	if wet {
		in.Choices["adhesive"] = "wet-glue"
	}
	it := batch.Item{Inputs: in, Copies: copies}
	r, err := design.Make(t.Context(), it.One())
	if err != nil {
		t.Fatal(err)
	}
	it.Made = r
	return it
}

func tasksOf(items []batch.Item, done map[string]int) []Task {
	ids := make([]int64, len(items))
	for i := range ids {
		ids[i] = int64(i + 1)
	}
	return Tasks(items, ids, nil, done)
}

func sessions(t testing.TB, text string) []Session {
	t.Helper()
	out, err := ReadSessions(text, monday, time.Time{})
	if err != nil {
		t.Fatal(err)
	}
	return out
}

// legal holds a plan to what a table allows, whatever made it: nobody does two things
// at once, nobody does what they cannot, a tool is in as many hands as there are of it,
// nothing is begun before what it needs is done and its glue has set, no session is
// overrun, and the lots of a task are its copies, each once.
func legal(t *testing.T, p Plan, tools Tools) {
	t.Helper()
	fail := func(i int, why string) {
		t.Errorf("lot %d, %s, %s by %s: %s", i, p.Says(p.Lots[i]), p.Lots[i].From.Format("Mon 15:04:05"), p.Hands[p.Lots[i].Hand].Name, why)
	}
	next := make([]int, len(p.Tasks))
	for i, task := range p.Tasks {
		next[i] = task.Done
	}
	for i, l := range p.Lots {
		task := p.Tasks[l.Task]
		if l.Copies < 1 || l.First != next[l.Task] {
			fail(i, fmt.Sprintf("copies from %d, %d are next", l.First, next[l.Task]))
		}
		next[l.Task] = l.First + l.Copies
		if !p.Hands[l.Hand].does(task.Kind) {
			fail(i, "is not their work")
		}
		over := time.Microsecond
		if p.Left == 0 && l.Session == p.Lots[len(p.Lots)-1].Session {
			over = grace
		}
		if s := p.Sessions[l.Session]; l.From.Before(s.From) || l.To.After(s.To.Add(over)) {
			fail(i, "is out of its session")
		}
		if got, want := l.To.Sub(l.From).Seconds(), task.Seconds(l.First, l.Copies); math.Abs(got-want) > 1e-6 {
			fail(i, fmt.Sprintf("takes %v s, not %v", got, want))
		}
		same := 0
		for k, m := range p.Lots {
			over := m.From.Before(l.To) && l.From.Before(m.To)
			if k != i && over && m.Hand == l.Hand {
				fail(i, "at the same time as another")
			}
			if !m.From.After(l.From) && m.To.After(l.From) && p.Tasks[m.Task].Kind == task.Kind {
				same++
			}
		}
		if same > tools.of(task.Kind) {
			fail(i, fmt.Sprintf("%d hands at one tool", same))
		}
		if task.After < 0 {
			continue
		}
		before := p.Tasks[task.After]
		there := before.Done
		for _, m := range p.Lots {
			if m.Task == task.After && !m.To.Add(before.Set).After(l.From) {
				there += m.Copies
			}
		}
		if there < l.First+l.Copies {
			fail(i, fmt.Sprintf("only %d are there", there))
		}
	}
	left := 0.0
	for i, task := range p.Tasks {
		left += task.Seconds(next[i], task.Copies-next[i])
	}
	if math.Abs(left-p.Left) > 1e-6 {
		t.Errorf("%v s are left, it says %v", left, p.Left)
	}
}

// Sixty bags in three evenings for two, glued wet: the order is legal, and what the
// lots take is what the recipe says that sixty take.
func TestSixtyBags(t *testing.T) {
	bags := item(t, "fold-top-bag", 60, true)
	tasks := tasksOf([]batch.Item{bags}, nil)
	p := Make(tasks, sessions(t, "Tuesday 18 to 22\nThursday 18 to 22\nSaturday 9 to 13"), []Hand{{Name: "Ada"}, {Name: "Ben", Can: []recipe.Kind{recipe.Fold, recipe.Glue, recipe.Remove, recipe.Fill, recipe.Close}}}, Tools{1, 1}, monday)
	legal(t, p, Tools{1, 1})
	if p.Left != 0 || p.Lacking != "" {
		t.Fatalf("%v h are left", p.Left/3600)
	}
	if len(p.Sessions) != 3 || p.Ready.After(p.Sessions[2].To) {
		t.Errorf("ready %v", p.Ready)
	}
	sum := 0.0
	hands := map[int]float64{}
	for _, l := range p.Lots {
		sum += l.To.Sub(l.From).Seconds()
		hands[l.Hand] += l.To.Sub(l.From).Seconds()
	}
	if want := recipe.Seconds(bags.Made.Steps, 60); math.Abs(sum-want) > 0.01 {
		t.Errorf("the lots take %v s, sixty bags %v", sum, want)
	}
	if hands[0] == 0 || hands[1] == 0 {
		t.Errorf("one does it all: %v", hands)
	}
	// A hand alone cuts all before it scores.
	alone := Make(tasks, sessions(t, "Tuesday 0 to 24\nThursday 0 to 24"), []Hand{{Name: "Ada"}}, Tools{}, monday)
	legal(t, alone, Tools{})
	if alone.Lots[0].Copies != 60 || alone.Tasks[alone.Lots[0].Task].Kind != recipe.Cut {
		t.Errorf("alone one begins with %s", alone.Says(alone.Lots[0]))
	}
}

// Whatever a job makes, by whoever and whenever, its plan is legal; and it goes on
// from what is done.
func TestAnyPlanIsLegal(t *testing.T) {
	r := rand.New(rand.NewPCG(15, 4))
	kinds := style.Boxes()
	for n := range 60 {
		var items []batch.Item
		for range 1 + r.IntN(3) {
			items = append(items, item(t, kinds[r.IntN(len(kinds))].ID, 1+r.IntN(40), r.IntN(2) == 0))
		}
		var hands []Hand
		for k := range 1 + r.IntN(MostHands) {
			h := Hand{Name: fmt.Sprint("Hand ", k)}
			if k > 0 && r.IntN(2) == 0 {
				for _, kind := range recipe.Kinds {
					if r.IntN(2) == 0 {
						h.Can = append(h.Can, kind)
					}
				}
			}
			hands = append(hands, h)
		}
		tools := Tools{1 + r.IntN(2), 1 + r.IntN(2)}
		when := sessions(t, "tue 18 to 20\nwed 18:30 to 21\nsat 9 to 17\nsun 10 to 12")
		done := map[string]int{}
		p := Make(tasksOf(items, done), when, hands, tools, monday)
		legal(t, p, tools)
		if len(p.Lots) == 0 {
			continue
		}
		// Half of it is really done; the rest is planned from there.
		for _, l := range p.Lots[:len(p.Lots)/2] {
			done[p.Tasks[l.Task].Key] = l.First + l.Copies
		}
		later := p.Lots[len(p.Lots)/2].From
		again := Make(tasksOf(items, done), when, hands, tools, later)
		legal(t, again, tools)
		for _, l := range again.Lots {
			if l.From.Before(later) {
				t.Errorf("plan %d: a lot at %v, it is %v", n, l.From, later)
			}
		}
		if start, can := LatestStart(tasksOf(items, nil), when, hands, tools, monday); can != (p.Left == 0) {
			t.Errorf("plan %d: %v s are left, it can be begun: %v", n, p.Left, can)
		} else if can && Make(tasksOf(items, nil), when, hands, tools, start.From).Left != 0 {
			t.Errorf("plan %d: begun %v it is not ready", n, start.From)
		}
	}
}

// Helpers help: with one trimmer and one board two take three fifths of one's time at most,
// and four two fifths; each hand's work lies together.
func TestHelpersHelp(t *testing.T) {
	for _, id := range []string{"tray-lid", "tray", "hinged-carton", "drawer-sleeve", "wallet-box", "gable-lid"} {
		items := []batch.Item{item(t, id, 12, false)}
		takes := map[int]float64{}
		for _, n := range []int{1, 2, 4} {
			var hands []Hand
			for k := range n {
				hands = append(hands, Hand{Name: fmt.Sprint("Hand ", k)})
			}
			p := Make(tasksOf(items, nil), sessions(t, "Tuesday 0 to 24"), hands, Tools{1, 1}, monday)
			legal(t, p, Tools{1, 1})
			takes[n] = p.Ready.Sub(p.Sessions[0].From).Minutes()
			for h := range hands {
				work, from, to := 0.0, p.Ready, p.Sessions[0].From
				for _, l := range p.Runs(0, h) {
					work += l.To.Sub(l.From).Seconds()
					if l.From.Before(from) {
						from = l.From
					}
					if l.To.After(to) {
						to = l.To
					}
				}
				if n > 1 && work < 0.6*to.Sub(from).Seconds() {
					t.Errorf("%s by %d: hand %d works %.0f s of %.0f", id, n, h, work, to.Sub(from).Seconds())
				}
			}
		}
		if takes[2] > 0.6*takes[1] || takes[4] > 0.4*takes[1] {
			t.Errorf("%s: one takes %.0f min, two %.0f, four %.0f", id, takes[1], takes[2], takes[4])
		}
	}
}

// Two minutes that are left over are done before one goes home.
func TestNobodyComesAgainForTwoMinutes(t *testing.T) {
	items := []batch.Item{item(t, "tray-lid", 6, false)}
	hands := []Hand{{Name: "Ada"}}
	whole := Make(tasksOf(items, nil), sessions(t, "Tuesday 0 to 24"), hands, Tools{}, monday)
	s := whole.Sessions[0]
	for _, short := range []time.Duration{2 * time.Minute, 10 * time.Minute} {
		when := []Session{{s.From, whole.Ready.Add(-short)}, {s.From.AddDate(0, 0, 4), s.To.AddDate(0, 0, 4)}}
		p := Make(tasksOf(items, nil), when, hands, Tools{}, monday)
		legal(t, p, Tools{})
		if again := p.Lots[len(p.Lots)-1].Session == 1; again != (short > grace) {
			t.Errorf("with %v too little, one comes again: %v", short, again)
		}
	}
}

// What nobody does is said; without sessions all is left.
func TestWhatIsLacking(t *testing.T) {
	tasks := tasksOf([]batch.Item{item(t, "tray", 3, false)}, nil)
	p := Make(tasks, sessions(t, "tue 18 to 22"), []Hand{{Name: "Ben", Can: []recipe.Kind{recipe.Cut}}}, Tools{}, monday)
	if legal(t, p, Tools{}); p.Lacking == "" || p.Left == 0 || len(p.Lots) != 1 {
		t.Errorf("lacking %q, %v left, %d lots", p.Lacking, p.Left, len(p.Lots))
	}
	if p := Make(tasks, nil, []Hand{{Name: "Ada"}}, Tools{}, monday); p.Left == 0 || len(p.Lots) != 0 {
		t.Errorf("without a time: %+v", p)
	}
}

// At the maker's pace, twice as slow, it takes twice as long.
func TestAPlanAtOnesPace(t *testing.T) {
	it := []batch.Item{item(t, "tray", 10, false)}
	paces := map[string]logbook.Pace{}
	for _, k := range recipe.Kinds {
		paces[string(k)] = logbook.Pace{Kind: string(k), Times: 2, Notes: 5}
	}
	sum := func(tasks []Task) float64 {
		s := 0.0
		for _, x := range tasks {
			s += x.Seconds(0, x.Copies)
		}
		return s
	}
	usual, slow := sum(Tasks(it, []int64{1}, nil, nil)), sum(Tasks(it, []int64{1}, paces, nil))
	if math.Abs(slow-2*usual) > 1e-6 || math.Abs(usual-recipe.Seconds(it[0].Made.Steps, 10)) > 1e-6 {
		t.Errorf("%v s, slowly %v", usual, slow)
	}
}

func BenchmarkTwoThousandBoxes(b *testing.B) {
	items := []batch.Item{item(b, "fold-top-bag", 500, true), item(b, "tray-lid", 500, true), item(b, "hinged-carton", 500, false), item(b, "wallet-box", 500, true)}
	tasks := tasksOf(items, nil)
	when, err := ReadSessions("monday 18 to 22\nwednesday 18 to 22\nsaturday 9 to 17", monday, monday.AddDate(1, 0, 0))
	if err != nil {
		b.Fatal(err)
	}
	hands := []Hand{{Name: "Ada"}, {Name: "Ben"}, {Name: "Cy"}}
	for b.Loop() {
		if p := Make(tasks, when, hands, Tools{1, 1}, monday); len(p.Lots) == 0 || p.Left > 0 {
			b.Fatalf("%v h are left", p.Left/3600)
		}
	}
}
