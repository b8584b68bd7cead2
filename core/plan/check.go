package plan

import (
	"slices"

	"kladotex/core/hair"
	"kladotex/core/invalid"
	"kladotex/core/method"
	"kladotex/core/parting"
	"kladotex/core/plait"
	"kladotex/core/scalp"
	"kladotex/core/supply"
)

// Check refuses what can be judged field by field, before the head is laid. The error is an
// [invalid.Errors] that names every such field.
func Check(in Input) error {
	_, err := in.fit()
	return err
}

// fit returns the head of an input whose fields are fine by themselves.
func (in Input) fit() (scalp.Head, error) {
	bad := in.check()
	head, err := scalp.FitWith(in.Head, in.Hairline)
	for _, err := range []error{err, invalid.Under(in.Parting.Check(), "parting")} {
		if err := bad.Collect(err); err != nil {
			return scalp.Head{}, err
		}
	}
	return head, bad.Err()
}

// check refuses what the packages that use a field do not check themselves.
func (in Input) check() invalid.Errors {
	var bad invalid.Errors
	if in.Schema != Schema {
		bad.Add("schema", "This plan is of version %d; this program reads versions up to %d. A newer Kladotex will open it.", in.Schema, Schema)
	}
	in.Hair.Check(&bad, "hair.", false)
	invalid.OneOf(&bad, "plaits.far", "How far to plait", in.Plaits.Far, plait.Fars)
	if in.Plaits.Anchor != 0 {
		bad.Length("plaits.anchorMm", "How far the turns go", in.Plaits.Anchor, 8, 150)
	}
	bad.Length("plaits.fedMm", "Hair fed into the ends", in.Plaits.Fed, 0, 300)
	invalid.OneOf(&bad, "plaits.direction", "The way of the plaits", in.Plaits.Direction, plait.Directions)
	invalid.OneOf(&bad, "plaits.tension", "The tension of the plaits", in.Plaits.Tension, plait.Tensions)

	pieces := invalid.Keys(&bad, "pieces", "The number of pieces", in.Pieces, MaxPieces, func(p hair.Piece) string { return p.Key })
	for i, p := range in.Pieces {
		p.Check(&bad, invalid.At("pieces", i)+".")
	}
	ways := invalid.Keys(&bad, "ways", "The number of methods", in.Ways, MaxWays, func(w Way) string { return w.Key })
	for i, w := range in.Ways {
		w.check(&bad, invalid.At("ways", i)+".")
	}
	in.checkUses(&bad, pieces, ways)
	if d := in.Parting.Design; in.Parting.Structure == parting.FrontDesign && d.Fed && !in.goesOn(ways) {
		bad.Add("parting.design.fed", "Hair is fed into the design: say which in What goes where, by a rule for where cornrows go on as braids, with braiding hair and the method %s.", fedInName())
	}
	bad.Number("spares.percent", "Spares", in.Spares.Percent, 0, 100, " %")
	bad.Count("spares.least", "Spares at least", in.Spares.Least, 0, 200)
	if in.Spares.Amount != "" {
		invalid.OneOf(&bad, "spares.amount", "The amount", in.Spares.Amount, supply.AmountNames)
	}
	bad.Number("spares.spoiltShare", "The share that is spoilt", in.Spares.Spoilt, 0, 0.3, "")
	bad.Count("fill.count", "Pieces to fill with", in.Fill.Count, 0, MaxFill)
	bad.Count("fill.at", "Spots to fill", len(in.Fill.At), 0, MaxFill)
	for i, d := range in.Fill.At {
		d.Check(&bad, invalid.At("fill.at", i))
	}
	if in.Stature != 0 {
		bad.Length("statureMm", "Height standing", in.Stature, MinStature, MaxStature)
	}
	if in.Trim != nil {
		in.Trim.check(&bad, "trim.")
	}
	if in.Price != nil {
		in.Price.Check(&bad, "price.")
	}
	if in.Wanted != nil {
		bad = append(bad, invalid.From(invalid.Under(in.Wanted.Check(), "wanted"))...)
	}
	if in.Wishes != nil {
		in.Wishes.Check(&bad, "wishes.")
	}
	if in.Redo != nil {
		bad.Count("redo.rows", "The outer rows to do again", in.Redo.Rows, 1, outerRows)
		bad.Letters("redo.install", "The install they belong to", in.Redo.Install, 1, 64)
	}
	in.checkCustoms(&bad)
	in.checkAccents(&bad, pieces)
	in.checkProducts(&bad)
	if in.Feed != nil {
		in.Feed.Check(&bad, "feed.")
	}
	if in.Day != nil {
		in.Day.check(&bad, "day.")
	}
	if !slices.Contains(pieces, in.Fill.Piece) {
		bad.Add("fill.piece", "The piece to fill with must be one of the plan's; it is %q.", in.Fill.Piece)
	}
	return bad
}

func (w Way) check(bad *invalid.Errors, path string) {
	m, ok := method.Lookup(w.Method)
	if !ok {
		invalid.OneOf(bad, path+"method", "The method", w.Method, method.IDs())
		return
	}
	m.Check(bad, path+"settings.", w.Settings)
	m.CheckChoices(bad, path+"choices.", w.Choices)
	switch wraps := m.As(w.Choices).Wraps; {
	case wraps && w.Wrapping == nil:
		bad.Add(path+"wrapping", "%s takes wrapping hair; say which.", m.Name)
	case wraps:
		w.Wrapping.Check(bad, path+"wrapping.")
	case w.Wrapping != nil && m.WrapsAs != "":
		bad.Add(path+"wrapping", "%s takes wrapping hair only where the plait is wrapped; leave it out, or choose that.", m.Name)
	case w.Wrapping != nil:
		bad.Add(path+"wrapping", "%s takes no wrapping hair; leave it out.", m.Name)
	}
}

// checkUses refuses uses that name what the plan does not have, and a list that does not
// begin with what everything gets: a method for plaits everywhere, one for the base.
func (in Input) checkUses(bad *invalid.Errors, pieces, ways []string) {
	bad.Count("uses", "The number of rules", len(in.Uses), 2, MaxUses)
	on := func(use Use, grounds ...method.Ground) bool {
		i := slices.Index(ways, use.Way)
		if i < 0 {
			return false
		}
		m, _ := method.Lookup(in.Ways[i].Method)
		return !slices.ContainsFunc(grounds, func(g method.Ground) bool { return !m.On(g) })
	}
	for i, use := range in.Uses {
		path := invalid.At("uses", i) + "."
		switch {
		case i == 0 && use.Where.Kind != Everywhere:
			bad.Add(path+"where.kind", "The first rule is for everywhere; others come after it.")
		case i == 1 && use.Where.Kind != OnBase:
			bad.Add(path+"where.kind", "The second rule is for the base; others come after it.")
		}
		use.Where.check(bad, path+"where.")
		if use.Piece != "" && !slices.Contains(pieces, use.Piece) || use.Piece == "" && i == 0 && len(use.Mix) == 0 {
			bad.Add(path+"piece", "The piece must be one of the plan's; it is %q.", use.Piece)
		}
		use.checkMix(bad, path, pieces)
		switch {
		case use.Way != "" && !slices.Contains(ways, use.Way):
			bad.Add(path+"way", "The method must be one of the plan's; it is %q.", use.Way)
		case i == 0 && !on(use, method.OnPlait):
			bad.Add(path+"way", "What everything gets must be a method that hides a plait.")
		case i == 1 && !on(use, method.OnCornrow, method.OnNet, method.OnLink, method.OnLaid):
			bad.Add(path+"way", "On the base pieces are hooked; this method needs a plait to hide.")
		}
		least := 0
		if i == 0 {
			least = 1
		}
		bad.Count(path+"count", "Pieces at each spot", use.Count, least, MaxCount)
		if use.Apart != 0 {
			bad.Number(path+"apart", "How far apart pieces are hooked", use.Apart, leastApart, mostApart, " times the usual")
			if use.Where.Kind == InRows || use.Where.Kind == AtPlaces {
				bad.Add(path+"apart", "How far apart pieces are hooked is told for a part of the head, not for rows or single spots.")
			}
		}
		if use.Piece == "" && len(use.Mix) == 0 && use.Way == "" && use.Count == 0 && use.Apart == 0 {
			bad.Add(path+"piece", "This rule says nothing: choose a piece, a method, a number or how far apart.")
		}
	}
}

// goesOn tells whether a rule says what cornrows with hair fed in go on as.
func (in Input) goesOn(ways []string) bool {
	return slices.ContainsFunc(in.Uses, func(u Use) bool {
		i := slices.Index(ways, u.Way)
		return u.Where.Kind == AtEnds && u.Piece != "" && i >= 0 && in.Ways[i].Method == method.FedIn
	})
}

// fedInName is what the method is called by which hair is fed in.
func fedInName() string {
	m, _ := method.Lookup(method.FedIn)
	return m.Name
}

// checkCustoms refuses questions that are not asked and sides they do not have.
func (in Input) checkCustoms(bad *invalid.Errors) {
	asked := make([]invalid.Question, len(Customs))
	for i, c := range Customs {
		asked[i] = invalid.Question{Key: c.Key, Label: c.Ask}
		for _, side := range c.Sides {
			asked[i].Options = append(asked[i].Options, side.Key)
		}
	}
	invalid.Answers(bad, "customs.", "There is no question named %q.", in.Customs, asked)
}

func (in Input) checkAccents(bad *invalid.Errors, pieces []string) {
	bad.Count("accents", "The number of accents", len(in.Accents), 0, maxAccents)
	for i, a := range in.Accents {
		at := invalid.At("accents", i) + "."
		a.Where.check(bad, at+"where.")
		bad.Count(at+"count", "How many accents", a.Count, 1, 200)
		switch {
		case (a.Piece == "") == (a.Thing == nil):
			bad.Add(at+"piece", "An accent is a piece of the plan or a small thing: say one of them.")
		case a.Thing == nil && !slices.Contains(pieces, a.Piece):
			bad.Add(at+"piece", "The piece must be one of the plan's; it is %q.", a.Piece)
		case a.Thing != nil:
			a.Thing.check(bad, at+"thing.")
		}
	}
}

func (u Use) checkMix(bad *invalid.Errors, path string, pieces []string) {
	if len(u.Mix) == 0 {
		return
	}
	if u.Piece != "" {
		bad.Add(path+"mix", "A rule names one piece or a mix, not both.")
	}
	bad.Count(path+"mix", "The number of pieces in a mix", len(u.Mix), 2, 6)
	for i, s := range u.Mix {
		at := invalid.At(path+"mix", i)
		if !slices.Contains(pieces, s.Piece) {
			bad.Add(at+".piece", "The piece must be one of the plan's; it is %q.", s.Piece)
		}
		bad.Count(at+".parts", "Its parts", s.Parts, 1, 20)
	}
}

// maxAccents bounds the accents of a plan.
const maxAccents = 12

const outerRows = 2

// checkProducts refuses products that cannot be.
func (in Input) checkProducts(bad *invalid.Errors) {
	bad.Count("products", "The number of products named", len(in.Products), 0, len(Products))
	for i, c := range in.Products {
		at := invalid.At("products", i) + "."
		invalid.OneOf(bad, at+"product", "The product", c.Product, ProductKeys())
		c.Thing.check(bad, at+"thing.")
	}
	for i, key := range in.Avoid {
		invalid.OneOf(bad, invalid.At("avoid", i), "The product", key, ProductKeys())
	}
}

// check refuses a small thing that cannot be; the paths of bad are put under path.
func (t Thing) check(bad *invalid.Errors, path string) {
	bad.Letters(path+"name", "The name of the thing", t.Name, 1, 80)
	bad.Number(path+"massG", "The mass of one", t.Mass, 0, 50, " g")
	bad.Count(path+"pack", "How many in a pack", t.Pack, 1, 5000)
	hair.CheckPrice(bad, path+"priceMinor", t.Price)
}
