package desk

// Sort is what lies in the bin.
type Sort string

// The sorts of what can be deleted.
const (
	BoxSort   Sort = "box"
	JobSort   Sort = "job"
	ThingSort Sort = "thing"
	PaperSort Sort = "paper"
)
