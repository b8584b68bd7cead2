// Package quote works out what an install costs: hair and small things, hours at a person's
// rate, what comes besides, tax and deposit. All amounts are integer minor units of one
// currency; nothing here depends on how many of them make a whole one, so sums are exact in
// every currency. Shares are rounded to the nearest minor unit, halves away from zero.
package quote

import (
	"fmt"
	"math"
	"strings"

	"kladotex/core/invalid"
	"kladotex/core/words"
)

// MostAmount is the largest amount of a line, minor units: far above any install in any
// currency, far below overflow.
const MostAmount = 1_000_000_000_000

// Percent is a share in hundredths; it has at most three decimals.
type Percent float64

// thousandths is the share in thousandths of a percent, as it is planned with.
func (p Percent) thousandths() int64 { return int64(math.Round(float64(p) * 1000)) }

// Of is the share of an amount, rounded to the nearest minor unit, halves away from zero.
func (p Percent) Of(amount int64) int64 { return rounded(amount*p.thousandths(), 100_000) }

// Within is the part of an amount that is the share on top of the rest: the tax in a price
// that has it in.
func (p Percent) Within(amount int64) int64 {
	return rounded(amount*p.thousandths(), 100_000+p.thousandths())
}

// rounded is a ÷ b, halves away from zero; b is positive.
func rounded(a, b int64) int64 {
	if a < 0 {
		return -rounded(-a, b)
	}
	return (a + b/2) / b
}

// Terms are what a studio asks, the same for all its quotes.
type Terms struct {
	Name string `json:"name" maxLength:"120" doc:"What the studio is called on a quote"`
	Rate int64  `json:"rateMinor" doc:"Price of an hour's work, minor units"`
	// Rates are those of people whose hour has another price, by the person's id.
	Rates       map[string]int64 `json:"ratesMinor,omitempty" doc:"Price of an hour by the person's id, where it is another"`
	Deposit     Percent          `json:"depositPercent" doc:"Share of the whole paid beforehand"`
	TaxName     string           `json:"taxName" maxLength:"40" doc:"What the tax is called"`
	Tax         Percent          `json:"taxPercent"`
	TaxIncluded bool             `json:"taxIncluded" doc:"True when prices have it in"`
	ValidDays   int              `json:"validDays" doc:"Days a quote holds"`
	Conditions  string           `json:"conditions" maxLength:"600" doc:"What else holds, in a few sentences; it stands on every quote"`
}

// UsualTerms are those of a studio that has set none: no tax, a fifth beforehand, a month.
// Invented: every studio sets its own.
func UsualTerms() Terms {
	return Terms{Rate: 3000, Deposit: 20, TaxName: "Tax", TaxIncluded: true, ValidDays: 30}
}

// Check refuses terms that cannot be.
func (t Terms) Check(bad *invalid.Errors, path string) {
	bad.Letters(path+"name", "The studio's name", t.Name, 0, 120)
	CheckAmount(bad, path+"rateMinor", "The price of an hour", t.Rate, 0)
	for id, rate := range t.Rates {
		CheckAmount(bad, fmt.Sprintf("%sratesMinor.%s", path, id), "The price of an hour", rate, 0)
	}
	t.Deposit.check(bad, path+"depositPercent", "The deposit", 100)
	t.Tax.check(bad, path+"taxPercent", "The tax", 50)
	bad.Letters(path+"taxName", "The name of the tax", t.TaxName, 0, 40)
	bad.Count(path+"validDays", "Days a quote holds", t.ValidDays, 1, 365)
	bad.Letters(path+"conditions", "The conditions", t.Conditions, 0, 600)
}

func (p Percent) check(bad *invalid.Errors, path, label string, most float64) {
	bad.Number(path, label, float64(p), 0, most, " %")
	if v := float64(p) * 1000; v == v && math.Abs(v-math.Round(v)) > 1e-6 {
		bad.Add(path, "%s has at most three decimals, such as 8.875 %%.", label)
	}
}

// CheckAmount refuses an amount that is out of bounds.
func CheckAmount(bad *invalid.Errors, path, label string, amount, least int64) {
	if amount < least || amount > MostAmount {
		bad.Add(path, "%s must lie between %d and %d of the currency's smallest unit; it is %d.", label, least, MostAmount, amount)
	}
}

// Basis is what one install is priced by.
type Basis struct {
	// Person is the id of who works, whose rate holds; empty for the studio's rate.
	Person string `json:"person,omitempty" maxLength:"64" doc:"Id of who works; left out for the studio's rate"`
	// BringsHair is true when the client brings the hair.
	BringsHair bool `json:"bringsHair,omitempty" doc:"True when the client brings hair and small things"`
	// Extras come besides; a negative one is taken off.
	Extras []Extra `json:"extras,omitempty" maxItems:"12"`
}

// Extra is something that comes besides, or is taken off.
type Extra struct {
	Name   string `json:"name" minLength:"1" maxLength:"80"`
	Amount int64  `json:"amountMinor" doc:"Minor units; below zero it is taken off"`
}

// maxExtras bounds the extras of a wish.
const maxExtras = 12

// Check refuses a wish that cannot be.
func (w Basis) Check(bad *invalid.Errors, path string) {
	bad.Letters(path+"person", "Who works", w.Person, 0, 64)
	bad.Count(path+"extras", "The number of extras", len(w.Extras), 0, maxExtras)
	for i, x := range w.Extras {
		at := invalid.At(path+"extras", i)
		bad.Letters(at+".name", "What it is for", strings.TrimSpace(x.Name), 1, 80)
		CheckAmount(bad, at+".amountMinor", "The amount", x.Amount, -MostAmount)
	}
}

// RateOf is the price of an hour of whoever the wish names.
func (t Terms) RateOf(person string) int64 {
	if rate, ok := t.Rates[person]; ok {
		return rate
	}
	return t.Rate
}

// Kind is what a line of a price is for.
type Kind string

// The kinds.
const (
	Hair   Kind = "hair"
	Things Kind = "things"
	Work   Kind = "work"
	Other  Kind = "extra"
)

// Charge is a line of a price.
type Charge struct {
	Kind   Kind   `json:"kind" enum:"hair,things,work,extra"`
	Name   string `json:"name"`
	Detail string `json:"detail" doc:"How it comes about; may be empty"`
	Amount int64  `json:"amountMinor"`
}

// Price is what an install costs.
type Price struct {
	Lines []Charge `json:"lines"`
	// Tax is in Total, whether or not the lines have it in. Total is Deposit and Rest.
	TaxName     string  `json:"taxName"`
	TaxPercent  Percent `json:"taxPercent"`
	TaxIncluded bool    `json:"taxIncluded" doc:"True when the lines have it in"`
	Tax         int64   `json:"taxMinor"`
	Total       int64   `json:"totalMinor"`
	Deposit     int64   `json:"depositMinor"`
	Rest        int64   `json:"restMinor" doc:"What is left to pay on the day"`
}

// Quarter is to how many minutes the time of a quote is rounded up.
const Quarter = 15

// Hours is the time charged for minutes of work, in minutes: whole quarters of an hour.
func Hours(minutes float64) int { return int(math.Ceil(minutes/Quarter-1e-9)) * Quarter }

// Labour is the work that is paid for: the minutes of all who work.
type Labour struct {
	Minutes float64
	People  int
}

// says is the time that is charged, in words.
func (l Labour) says(charged int) string {
	if l.People > 1 {
		return fmt.Sprintf("%s of %d people", words.Clock(charged), l.People)
	}
	return words.Clock(charged)
}

// Of is the price of hair and things, with a line for each, and of work. What is taken off takes
// off what there is, and no more: then the line says so.
func (t Terms) Of(w Basis, bought []Charge, work Labour) Price {
	p := Price{Lines: []Charge{}, TaxName: t.TaxName, TaxPercent: t.Tax, TaxIncluded: t.TaxIncluded}
	if !w.BringsHair {
		p.Lines = append(p.Lines, bought...)
	}
	charged := Hours(work.Minutes)
	p.Lines = append(p.Lines, Charge{
		Kind: Work, Name: "Work", Detail: work.says(charged),
		Amount: rounded(int64(charged)*t.RateOf(w.Person), 60),
	})
	for _, x := range w.Extras {
		p.Lines = append(p.Lines, Charge{Kind: Other, Name: x.Name, Amount: x.Amount})
	}
	for _, l := range p.Lines {
		p.Total += l.Amount
	}
	for i := len(p.Lines) - 1; i >= 0 && p.Total < 0; i-- { // nobody is paid to sit down
		l := &p.Lines[i]
		if l.Amount < 0 {
			kept := min(-l.Amount, -p.Total)
			l.Amount += kept
			p.Total += kept
			l.Detail = "as far as there is anything to take it off"
		}
	}
	if t.TaxIncluded {
		p.Tax = t.Tax.Within(p.Total)
	} else {
		p.Tax = t.Tax.Of(p.Total)
		p.Total += p.Tax
	}
	p.Deposit = t.Deposit.Of(p.Total)
	p.Rest = p.Total - p.Deposit
	return p
}
