package web_test

import (
	"context"
	"encoding/json"
	"fmt"
	"slices"
	"strings"
	"testing"
	"time"

	"github.com/chromedp/cdproto/accessibility"
	"github.com/chromedp/cdproto/cdp"
	"github.com/chromedp/cdproto/dom"
	"github.com/chromedp/cdproto/emulation"
	"github.com/chromedp/cdproto/input"
	"github.com/chromedp/cdproto/runtime"
	"github.com/chromedp/chromedp"
	"github.com/chromedp/chromedp/kb"

	"brevium/web/webtest"
)

// hand uses a page as a maker does who has never seen its code: things are
// found by what they are and what they are called, as a screen reader would say
// them. It counts what it does.
type hand struct {
	*browser
	touch   bool
	actions int
	keys    int
}

// said is one thing of a page as assistive technology has it.
type said struct {
	Role, Name, Value, Description string
	State                          map[string]string
	Level                          int
	node                           cdp.BackendNodeID
}

func text(v *accessibility.Value) string {
	if v == nil {
		return ""
	}
	var out any
	if json.Unmarshal([]byte(v.Value), &out) != nil || out == nil {
		return ""
	}
	return strings.Join(strings.Fields(fmt.Sprint(out)), " ")
}

// saidOf is a thing of the accessibility tree.
func saidOf(n *accessibility.Node, level int) said {
	s := said{Role: text(n.Role), Name: text(n.Name), Value: text(n.Value), Description: text(n.Description), State: map[string]string{}, Level: level, node: n.BackendDOMNodeID}
	for _, p := range n.Properties {
		s.State[string(p.Name)] = text(p.Value)
	}
	return s
}

// tree is the page's accessibility tree, in order, without what is ignored.
func (b *browser) tree() []said {
	b.t.Helper()
	ctx, stop := context.WithTimeout(b.ctx, webtest.Patience)
	defer stop()
	var out []said
	err := chromedp.Do(ctx, chromedp.Func(func(ctx context.Context, t *chromedp.Target) error {
		res, err := cdp.Call(ctx, t, accessibility.GetFullAXTree, accessibility.GetFullAXTreeParams{})
		if err != nil {
			return err
		}
		byID := map[accessibility.NodeID]*accessibility.Node{}
		for _, n := range res.Nodes {
			byID[n.NodeID] = n
		}
		var walk func(n *accessibility.Node, level int)
		walk = func(n *accessibility.Node, level int) {
			if n == nil {
				return
			}
			if !n.Ignored {
				out = append(out, saidOf(n, level))
				level++
			}
			for _, id := range n.ChildIDs {
				walk(byID[id], level)
			}
		}
		if len(res.Nodes) > 0 {
			walk(res.Nodes[0], 0)
		}
		return nil
	}))
	if err != nil {
		b.t.Fatalf("at %s: %v", b.where(), err)
	}
	return out
}

// asked gives what assistive technology has of the things that a question of the protocol, about
// the object that a script gives, finds.
func (b *browser) asked(script string, question func(ctx context.Context, t *chromedp.Target, of runtime.RemoteObjectID) ([]*accessibility.Node, error)) []said {
	b.t.Helper()
	ctx, stop := context.WithTimeout(b.ctx, webtest.Patience)
	defer stop()
	var out []said
	err := chromedp.Do(ctx, chromedp.Func(func(ctx context.Context, t *chromedp.Target) error {
		object, err := cdp.Call(ctx, t, runtime.Evaluate, runtime.EvaluateParams{Expression: script})
		if err != nil || object.Result == nil || object.Result.ObjectID == "" {
			return err
		}
		nodes, err := question(ctx, t, object.Result.ObjectID)
		for _, n := range nodes {
			if !n.Ignored {
				out = append(out, saidOf(n, 0))
			}
		}
		return err
	}))
	if err != nil && !strings.Contains(err.Error(), "not find") && !strings.Contains(err.Error(), "not belong") { // the page was just another
		b.t.Fatalf("at %s: %v", b.where(), err)
	}
	return out
}

// ofRole are all things of a role on the page, in order.
func (b *browser) ofRole(role string) []said {
	b.t.Helper()
	return b.asked("document", func(ctx context.Context, t *chromedp.Target, of runtime.RemoteObjectID) ([]*accessibility.Node, error) {
		res, err := cdp.Call(ctx, t, accessibility.QueryAXTree, accessibility.QueryAXTreeParams{ObjectID: of, Role: role})
		if err != nil {
			return nil, err
		}
		return res.Nodes, nil
	})
}

// find waits for a thing of a role whose name begins with the words, or else
// has them in it.
func (h *hand) find(role, words string) said {
	h.t.Helper()
	words = strings.Join(strings.Fields(words), " ")
	late := time.Now().Add(webtest.Patience)
	for {
		all := h.ofRole(role)
		for _, match := range []func(a, b string) bool{func(a, b string) bool { return a == b }, strings.HasPrefix, strings.Contains} {
			if i := slices.IndexFunc(all, func(s said) bool { return match(s.Name, words) }); i >= 0 {
				return all[i]
			}
		}
		if time.Now().After(late) {
			h.t.Fatalf("at %s: there is no %s “%s”; the page says: %s", h.where(), role, words,
				h.value(`[...document.querySelectorAll("[role=alert], .fault")].map(e => e.innerText).join(" / ")`))
		}
		time.Sleep(30 * time.Millisecond)
	}
}

// press presses a button, a link or a choice by its name.
func (h *hand) press(role, words string) {
	h.t.Helper()
	h.actions++
	for try := 1; ; try++ {
		if err := h.pressOnce(h.find(role, words)); err == nil {
			break
		} else if try == 5 {
			h.t.Fatalf("at %s: %s “%s”: %v", h.where(), role, words, err)
		}
		time.Sleep(100 * time.Millisecond)
	}
	h.rest()
}

func (h *hand) pressOnce(s said) error {
	ctx, stop := context.WithTimeout(h.ctx, webtest.Patience)
	defer stop()
	return chromedp.Do(ctx, chromedp.Func(func(ctx context.Context, t *chromedp.Target) error {
		if _, err := cdp.Call(ctx, t, dom.ScrollIntoViewIfNeeded, dom.ScrollIntoViewIfNeededParams{BackendNodeID: s.node}); err != nil {
			return err
		}
		time.Sleep(50 * time.Millisecond) // what is fixed over the page settles
		res, err := cdp.Call(ctx, t, dom.GetContentQuads, dom.GetContentQuadsParams{BackendNodeID: s.node})
		if err != nil {
			return err
		}
		if len(res.Quads) == 0 {
			return fmt.Errorf("it is not in sight")
		}
		q := res.Quads[0]
		x, y := (q[0]+q[2]+q[4]+q[6])/4, (q[1]+q[3]+q[5]+q[7])/4
		if h.touch {
			for _, kind := range []input.DispatchTouchEventType{input.DispatchTouchEventTypeTouchStart, input.DispatchTouchEventTypeTouchEnd} {
				p := input.DispatchTouchEventParams{Type: kind, TouchPoints: []*input.TouchPoint{}}
				if kind == input.DispatchTouchEventTypeTouchStart {
					p.TouchPoints = []*input.TouchPoint{{X: x, Y: y}}
				}
				if _, err := cdp.Call(ctx, t, input.DispatchTouchEvent, p); err != nil {
					return err
				}
			}
			return nil
		}
		_, err = chromedp.MouseClickXY(x, y)(ctx, t)
		return err
	}))
}

// write writes into a field by its label, in place of what is there.
func (h *hand) write(words, value string) {
	h.t.Helper()
	h.writeInto("textbox", words, value)
}

// writeInto does so where the field is of another role, such as one to search by.
func (h *hand) writeInto(role, words, value string) {
	h.t.Helper()
	s := h.find(role, words)
	h.actions++
	if err := h.pressOnce(s); err != nil {
		h.t.Fatalf("at %s: the field “%s”: %v", h.where(), words, err)
	}
	h.do(js(`document.activeElement.select?.()`), chromedp.KeyEvent(value), chromedp.KeyEvent(kb.Tab))
	h.rest()
}

// pick picks a choice of a list by the list's label and the choice's words.
func (h *hand) pick(words, choice string) {
	h.t.Helper()
	s := h.find("combobox", words)
	h.actions++
	// The list opens over the page where no test can reach: it is given the focus
	// and the choice by script.
	h.do(chromedp.Func(func(ctx context.Context, t *chromedp.Target) error {
		_, err := cdp.Call(ctx, t, dom.Focus, dom.FocusParams{BackendNodeID: s.node})
		return err
	}), js(fmt.Sprintf(`(() => { const s = document.activeElement;
		const o = [...s.options].find(o => o.text.includes(%q)); if (!o) throw new Error("no such choice");
		s.value = o.value; s.dispatchEvent(new Event("change", {bubbles: true})); })()`, choice)))
	h.rest()
}

// key presses keys of the keyboard, each counted.
func (h *hand) key(keys ...string) {
	h.t.Helper()
	for _, k := range keys {
		h.keys++
		h.do(chromedp.KeyEvent(k))
	}
	h.rest()
}

// drag takes what lies at a place of the window to another.
func (h *hand) drag(x1, y1, x2, y2 float64) {
	h.t.Helper()
	h.actions++
	h.do(chromedp.MouseEvent(input.DispatchMouseEventTypeMousePressed, x1, y1, chromedp.ButtonLeft, chromedp.ClickCount(1)))
	h.do(chromedp.MouseEvent(input.DispatchMouseEventTypeMouseMoved, (x1+x2)/2, (y1+y2)/2, chromedp.ButtonLeft))
	h.do(chromedp.MouseEvent(input.DispatchMouseEventTypeMouseMoved, x2, y2, chromedp.ButtonLeft))
	h.do(chromedp.MouseEvent(input.DispatchMouseEventTypeMouseReleased, x2, y2, chromedp.ButtonLeft, chromedp.ClickCount(1)))
	h.rest()
}

// rest waits until the page has nothing under way.
func (h *hand) rest() {
	h.t.Helper()
	time.Sleep(60 * time.Millisecond)
	h.until(`document.readyState == "complete" && !document.querySelector(".htmx-request, .htmx-swapping, .htmx-settling")`)
}

// focus is what has the focus, as it is said aloud.
func (h *hand) focus() said {
	h.t.Helper()
	all := h.asked("document.activeElement", func(ctx context.Context, t *chromedp.Target, of runtime.RemoteObjectID) ([]*accessibility.Node, error) {
		alone := false
		res, err := cdp.Call(ctx, t, accessibility.GetPartialAXTree, accessibility.GetPartialAXTreeParams{ObjectID: of, FetchRelatives: &alone})
		if err != nil {
			return nil, err
		}
		return res.Nodes, nil
	})
	if len(all) == 0 || all[0].Role == "RootWebArea" || all[0].State["focused"] != "true" {
		return said{}
	}
	return all[0]
}

// inUnit presses a unit and waits for the page in it: until that has come, what is pressed on the page
// before it is lost.
func (h *hand) inUnit(button string) {
	h.t.Helper()
	h.value(`window.inTheUnitBefore = true`)
	h.press("button", button)
	h.until(`!window.inTheUnitBefore && document.readyState === "complete"`)
}

// within fails when more was needed than a maker has patience for.
func (h *hand) within(actions int) {
	h.t.Helper()
	h.t.Logf("%d actions, %d keys", h.actions, h.keys)
	if h.actions > actions {
		h.t.Errorf("it took %d actions; want at most %d", h.actions, actions)
	}
}

// newHand opens an application without any data at a size of screen.
func newHand(t *testing.T, x *webtest.Table, wide, high int64) *hand {
	t.Helper()
	h := &hand{browser: openBrowser(t, x)}
	h.do(chromedp.EmulateViewport(wide, high))
	return h
}

// byTouch makes it a hand on glass.
func (h *hand) byTouch() *hand {
	h.touch = true
	h.do(chromedp.Func(func(ctx context.Context, t *chromedp.Target) error {
		_, err := cdp.Call(ctx, t, emulation.SetTouchEmulationEnabled, emulation.SetTouchEmulationEnabledParams{Enabled: true})
		return err
	}))
	return h
}
