package page

import "sync"

// Looking is the one search for a better layout that runs, so that all who look at its job
// see it.
type Looking struct {
	mu  sync.Mutex
	job int64
	who string
}

// Begin says that a person looks for a layout of a job, until end is called. tell tells all
// pages that something is another.
func (l *Looking) Begin(job int64, who string, tell func()) (end func()) {
	set := func(job int64, who string) {
		l.mu.Lock()
		l.job, l.who = job, who
		l.mu.Unlock()
		tell()
	}
	set(job, who)
	return func() { set(0, "") }
}

// By is who looks for a layout of a job now, "" for nobody.
func (l *Looking) By(job int64) string {
	l.mu.Lock()
	defer l.mu.Unlock()
	if job != l.job {
		return ""
	}
	return l.who
}
