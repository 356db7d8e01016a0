package evenings

import (
	"fmt"
	"regexp"
	"slices"
	"strconv"
	"strings"
	"time"

	"brevium/core/fault"
	"brevium/core/recipe"
)

// MostSessions is how many sessions a plan has at most.
const MostSessions = 400

var (
	between = regexp.MustCompile(`^(.+?)\s*,?\s*(?:from\s+)?(\d{1,2}(?:[:.]\d{2})?\s*(?:am|pm)?)\s*(?:to|until|till|–|—|-)\s*(\d{1,2}(?:[:.]\d{2})?\s*(?:am|pm)?)$`)
	clock   = regexp.MustCompile(`^(\d{1,2})(?:[:.](\d{2}))?\s*(am|pm)?$`)
)

// partOfDay is what people mean by a word, where no hours are said.
var partOfDay = map[string]string{"morning": "9 to 12", "afternoon": "14 to 17", "evening": "19 to 21"}

// parted parts what is typed into its times: by lines, semicolons, and commas that do
// not part a day from its hours.
func parted(text string) (out []string) {
	for _, line := range strings.FieldsFunc(strings.ToLower(text), func(r rune) bool { return r == '\n' || r == ';' }) {
		part := ""
		for _, p := range strings.Split(line, ",") {
			part = strings.TrimSpace(part + " " + strings.TrimSpace(p))
			if day, word, _ := cutLast(part); partOfDay[word] != "" {
				part = day + " " + partOfDay[word]
			}
			if between.MatchString(part) {
				out, part = append(out, part), ""
			}
		}
		if part != "" {
			out = append(out, part)
		}
	}
	return out
}

// cutLast cuts the last word off.
func cutLast(text string) (before, last string, found bool) {
	i := strings.LastIndex(text, " ")
	if i < 0 {
		return "", text, false
	}
	return text[:i], text[i+1:], true
}

// ReadSessions reads the evenings a maker has: "Tuesday 19 to 21, Saturday morning",
// "Saturday 9:30 to 12", "tomorrow 7 pm to 9 pm", "2026-12-01 19 to 21". A weekday is
// the next one from a day on; with a day to be ready by, it is every one until then,
// that day among them. Faults name the time.
func ReadSessions(text string, now, readyBy time.Time) ([]Session, error) {
	var out []Session
	for n, line := range parted(text) {
		field := fmt.Sprintf("line %d", n+1)
		m := between.FindStringSubmatch(line)
		if m == nil {
			return nil, fault.New(fault.Invalid, field, "%q is no time at the table; write it like Tuesday 19 to 21", line)
		}
		from, err := timeOfDay(m[2])
		if err != nil {
			return nil, fault.At(field, err)
		}
		to, err := timeOfDay(m[3])
		if err != nil {
			return nil, fault.At(field, err)
		}
		if to <= from {
			return nil, fault.New(fault.Invalid, field, "%q ends before it begins; write it like Tuesday 19 to 21", line)
		}
		days, err := daysOf(strings.TrimSpace(m[1]), now, readyBy)
		if err != nil {
			return nil, fault.At(field, err)
		}
		for _, d := range days {
			s := Session{d.Add(from), d.Add(to)}
			if !s.To.After(now) {
				continue
			}
			if out = append(out, s); readyBy.IsZero() {
				break // the next one alone
			}
		}
	}
	if len(out) == 0 {
		return nil, fault.New(fault.Empty, "evenings", "say when you have time at the table, like Tuesday 19 to 21")
	}
	slices.SortStableFunc(out, func(a, b Session) int { return a.From.Compare(b.From) })
	for i, s := range out[1:] {
		if s.From.Before(out[i].To) {
			return nil, fault.New(fault.Invalid, "evenings", "two of these times lie over one another: %s", s.From.Format("Monday 2 January, 15:04"))
		}
	}
	return out[:min(len(out), MostSessions)], nil
}

// timeOfDay reads "19", "19:30" or "7 pm", as time from midnight.
func timeOfDay(text string) (time.Duration, error) {
	m := clock.FindStringSubmatch(strings.TrimSpace(text))
	wrong := fault.New(fault.Invalid, "", "%q is no time of day; write it like 19:30", text)
	if m == nil {
		return 0, wrong
	}
	h, _ := strconv.Atoi(m[1]) // two digits
	minutes, _ := strconv.Atoi("0" + m[2])
	switch {
	case h > 24 || minutes > 59 || m[3] != "" && (h < 1 || h > 12) || h == 24 && minutes > 0:
		return 0, wrong
	case m[3] == "pm" && h < 12:
		h += 12
	case m[3] == "am" && h == 12:
		h = 0
	}
	return time.Duration(h)*time.Hour + time.Duration(minutes)*time.Minute, nil
}

// daysOf are the days a word means, at midnight.
func daysOf(word string, now, readyBy time.Time) ([]time.Time, error) {
	today := time.Date(now.Year(), now.Month(), now.Day(), 0, 0, 0, 0, now.Location())
	word = strings.TrimPrefix(word, "every ")
	switch word {
	case "today", "tonight":
		return []time.Time{today}, nil
	case "tomorrow":
		return []time.Time{today.AddDate(0, 0, 1)}, nil
	}
	if d, err := time.ParseInLocation(time.DateOnly, word, now.Location()); err == nil {
		return []time.Time{d}, nil
	}
	for day := time.Sunday; day <= time.Saturday; day++ {
		name := strings.ToLower(day.String())
		if len(word) < 2 || !strings.HasPrefix(name, strings.TrimSuffix(strings.TrimSuffix(word, "s"), ".")) {
			continue
		}
		first := today.AddDate(0, 0, (int(day)-int(today.Weekday())+7)%7)
		out := []time.Time{first}
		if readyBy.IsZero() { // today's may be over
			return append(out, first.AddDate(0, 0, 7)), nil
		}
		for d := first.AddDate(0, 0, 7); !d.After(readyBy) && len(out) < MostSessions; d = d.AddDate(0, 0, 7) {
			out = append(out, d)
		}
		return out, nil
	}
	return nil, fault.New(fault.Invalid, "", "%q is no day; use a weekday, today, tomorrow or a date such as 2026-12-01", word)
}

// words are what kinds of work are called when people say what they do.
var words = map[string]recipe.Kind{
	"cut": recipe.Cut, "score": recipe.Score, "fold": recipe.Fold, "cut away": recipe.Remove, "decorate": recipe.Decorate,
	"glue": recipe.Glue, "put together": recipe.Assemble, "fill": recipe.Fill, "close": recipe.Close,
}

// ReadHands reads who is at the table, one to a line: a name, and after a colon what
// they do, parted by commas; without it, all of it. Nobody named is one maker.
func ReadHands(text string) ([]Hand, error) {
	var out []Hand
	for n, line := range strings.FieldsFunc(text, func(r rune) bool { return r == '\n' || r == ';' }) {
		name, does, some := strings.Cut(line, ":")
		h := Hand{Name: strings.TrimSpace(name)}
		if h.Name == "" && !some {
			continue
		}
		field := fmt.Sprintf("line %d", n+1)
		switch {
		case h.Name == "" || len([]rune(h.Name)) > 40:
			return nil, fault.New(fault.Invalid, field, "say who it is, in up to 40 letters, before what they do")
		case slices.ContainsFunc(out, func(x Hand) bool { return x.Name == h.Name }):
			return nil, fault.New(fault.Invalid, field, "%s is here twice", h.Name)
		case len(out) == MostHands:
			return nil, fault.New(fault.CountRange, field, "a table has up to %d people", MostHands)
		}
		for _, w := range strings.Split(does, ",") {
			w = strings.ToLower(strings.TrimSpace(w))
			if w == "" || w == "all" {
				continue
			}
			k, known := words[w]
			if !known {
				return nil, fault.New(fault.UnknownChoice, field, "%q is no kind of work; use cut, score, fold, cut away, decorate, glue, put together, fill, close, or all", w)
			}
			h.Can = append(h.Can, k)
		}
		out = append(out, h)
	}
	if len(out) == 0 {
		out = []Hand{{Name: "you"}}
	}
	return out, nil
}
