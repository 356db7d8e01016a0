package door

import (
	"net/http"
	"strings"

	"brevium/core/people"
)

// stranger is what those need who did not sign in: nothing.
const stranger = people.Role("")

// rules say what an address needs, the first that is right for it: a method ("" for any),
// and a route as it is registered; one that ends in * is of all that begin so.
// docs/running-a-workshop.md has them as a table, and a test holds it against every route.
var rules = []struct {
	method, route string
	needs         people.Role
}{
	{"", "/static/*", stranger},
	{"", "/health", stranger},
	{"", "/sign-in*", stranger},
	{"", "/set-up", stranger},
	{"", "/join/:code", stranger},
	{http.MethodGet, "/look/:code", stranger},
	{http.MethodGet, "/papers/:file", stranger}, // what the store shows them
	{"", "/class/*", stranger},                  // by its code, which shows one box's steps
	{"", "/sign-out", people.Guest},
	{"", "/me*", people.Guest},
	{"", "/units", people.Guest},
	{"", "/light", people.Guest},
	{"", "/paper", people.Guest},
	{"", "/people*", people.Steward},
	{"", "/data*", people.Steward},
	{http.MethodGet, "/read", people.Guest},
	{http.MethodGet, "/styles/table", people.Maker}, // it begins a style
	{http.MethodGet, "*", people.Guest},
	{"", "*", people.Maker},
}

// Needs is the role that a route asks for, "" for none.
func Needs(method, route string) people.Role {
	for _, r := range rules {
		if r.method != "" && r.method != method {
			continue
		}
		if start, many := strings.CutSuffix(r.route, "*"); r.route == route || many && strings.HasPrefix(route, start) {
			return r.needs
		}
	}
	return people.Steward
}
