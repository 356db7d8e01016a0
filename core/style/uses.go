package style

// Use is what a kind of box is made for, as makers ask for one.
type Use string

// What the kinds of box are made for, in the order in which they are shown.
const (
	ForGifts   Use = "gifts"
	ForTreats  Use = "treats"
	ForFavours Use = "favours"
	ForPaper   Use = "paper"
	ForTall    Use = "tall"
	ForSeveral Use = "several"
	ForShow    Use = "show"
)

// Uses are all of them.
var Uses = []Use{ForGifts, ForTreats, ForFavours, ForPaper, ForSeveral, ForShow, ForTall}

// Words are what a use is called on a page.
func (u Use) Words() string {
	return map[Use]string{
		ForGifts: "Gifts and jewellery", ForTreats: "Treats and baking", ForFavours: "Favours, one for each guest",
		ForPaper: "Cards, vouchers and books", ForTall: "Bottles and tall things",
		ForSeveral: "Several things in one", ForShow: "Trays and baskets to serve from",
	}[u]
}
