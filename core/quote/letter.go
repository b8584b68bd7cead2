package quote

// LetterSchema is the version of [Letter] this package writes.
const LetterSchema = 1

// Letter is a quote as it was given: all that stands on it. It is never worked out again.
type Letter struct {
	Schema int    `json:"schema" doc:"Version of this document's schema"`
	Title  string `json:"title" doc:"What the plan was called"`
	Client string `json:"client" doc:"Whose head it is; empty while that was open"`
	Studio string `json:"studio" doc:"Who gives it"`
	By     string `json:"by" doc:"Who wrote it, by name"`
	// On and Until are days, the first and the last on which it holds.
	On       string `json:"on"`
	Until    string `json:"until"`
	Currency string `json:"currency" doc:"ISO 4217 code"`
	Price    Price  `json:"price"`
	// Included is what the price takes in, Cautions what to look out for, Care what holds in
	// the weeks after.
	Included   []string `json:"included"`
	Cautions   []string `json:"cautions"`
	Care       []string `json:"care"`
	Conditions string   `json:"conditions"`
	// Engine is the version of the computation it was worked out by.
	Engine string `json:"engine"`
}

// State is what became of a quote.
type State string

// The states.
const (
	Open     State = "given"
	Accepted State = "accepted"
	Declined State = "declined"
)

// States are all of them.
var States = []State{Open, Accepted, Declined}
