package evenings

import (
	"strings"
	"testing"
	"time"
)

func TestReadSessions(t *testing.T) {
	for text, want := range map[string]string{
		"Tuesday 19 to 21":                     "Tue 1 19:00-21:00",
		"tues 7 pm - 9:30pm; Saturday 9.15–12": "Tue 1 19:00-21:30, Sat 5 09:15-12:00",
		"today 18 to 20":                       "Mon 30 18:00-20:00",
		"tonight from 8pm until 10pm":          "Mon 30 20:00-22:00",
		"tomorrow, 12 am to 12 pm":             "Tue 1 00:00-12:00",
		"2026-12-24 10 to 24":                  "Thu 24 10:00-00:00",
		"Monday 9 to 11":                       "Mon 7 09:00-11:00", // today's is over
		"Tuesday 19 to 21, Saturday morning":   "Tue 1 19:00-21:00, Sat 5 09:00-12:00",
		"friday evening":                       "Fri 4 19:00-21:00",
		"Mondays 11 to 13":                     "Mon 30 11:00-13:00",
	} {
		got, err := ReadSessions(text, monday, time.Time{})
		if told := tellAll(got); err != nil || told != want {
			t.Errorf("%q: %s, %v", text, told, err)
		}
	}
	got, err := ReadSessions("Tuesday 19 to 21\nSaturday 9 to 12", monday, monday.AddDate(0, 0, 8))
	if told := tellAll(got); err != nil || told != "Tue 1 19:00-21:00, Sat 5 09:00-12:00, Tue 8 19:00-21:00" {
		t.Errorf("until Tuesday week: %s, %v", told, err)
	}
	for text, says := range map[string]string{
		"":                                   "when you have time",
		"whenever":                           "no time at the table",
		"Tuesday 21 to 19":                   "ends before",
		"Tuesday 25 to 26":                   "no time of day",
		"Someday 19 to 21":                   "is no day",
		"Tuesday 19 to 21\nTuesday 20 to 22": "over one another",
		"2026-11-01 10 to 12":                "when you have time",
	} {
		if got, err := ReadSessions(text, monday, time.Time{}); err == nil || !strings.Contains(err.Error(), says) {
			t.Errorf("%q: %s, %v", text, tellAll(got), err)
		}
	}
}

func tellAll(all []Session) string {
	var out []string
	for _, s := range all {
		out = append(out, s.From.Format("Mon 2 15:04")+"-"+s.To.Format("15:04"))
	}
	return strings.Join(out, ", ")
}

func TestReadHands(t *testing.T) {
	got, err := ReadHands("Ada\nBen: fold, put together; Cy: all")
	if err != nil || len(got) != 3 || got[0].Can != nil || len(got[1].Can) != 2 || got[2].Can != nil || got[1].Name != "Ben" {
		t.Errorf("%+v, %v", got, err)
	}
	if got, err := ReadHands(" \n"); err != nil || len(got) != 1 {
		t.Errorf("nobody named: %+v, %v", got, err)
	}
	for text, says := range map[string]string{
		"Ada\nAda": "twice", "Ada: juggle": "no kind of work", ": fold": "who it is", "a\nb\nc\nd\ne\nf\ng": "up to 6",
	} {
		if _, err := ReadHands(text); err == nil || !strings.Contains(err.Error(), says) {
			t.Errorf("%q: %v", text, err)
		}
	}
}

// Whatever is typed, it ends, and what is taken are times after now, one after another.
func FuzzRead(f *testing.F) {
	f.Add("Tuesday 19 to 21\nSaturday 9:30 to 12", "Ada\nBen: fold, glue")
	f.Add("tomorrow 7 pm to 9 pm; 2026-12-01 19-21", ":")
	f.Fuzz(func(t *testing.T, when, who string) {
		all, err := ReadSessions(when, monday, monday.AddDate(0, 1, 0))
		for i, s := range all {
			if err != nil || !s.To.After(s.From) || !s.To.After(monday) || i > 0 && s.From.Before(all[i-1].To) {
				t.Errorf("%q: %s, %v", when, tellAll(all), err)
			}
		}
		if hands, err := ReadHands(who); err == nil && (len(hands) < 1 || len(hands) > MostHands) {
			t.Errorf("%q: %d hands", who, len(hands))
		}
	})
}
