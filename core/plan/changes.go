package plan

import (
	"fmt"
	"slices"
	"strconv"
	"strings"

	"kladotex/core/hair"
	"kladotex/core/invalid"
	"kladotex/core/method"
	"kladotex/core/parting"
	"kladotex/core/plait"
	"kladotex/core/quote"
	"kladotex/core/words"
)

// Unit says how a changed value is written for a person.
type Unit string

// The units of changes.
const (
	Length  Unit = "mm"    // a length, shown in the reader's own unit
	Percent Unit = "%"     // a percentage
	Money   Unit = "minor" // money, minor units
	Grams   Unit = "g"
	Plain   Unit = "" // a number or a word as it stands
)

// Change is one field that differs between two inputs.
type Change struct {
	// Path is the field's JSON path in the document.
	Path  string `json:"path"`
	Label string `json:"label" doc:"The field in the trade's words"`
	Unit  Unit   `json:"unit" enum:"mm,%,minor,g," doc:"How From and To are to be read"`
	From  string `json:"from"`
	To    string `json:"to"`
}

// field is a field of the document as people speak of it.
type field struct {
	path, label string
	unit        Unit
	text        func(Input) string
}

func number(v float64) string { return strconv.FormatFloat(v, 'f', -1, 64) }

// spoken are the values of the document that are not said as they are written.
var spoken = map[string]string{
	string(parting.LinkedPlaits): "linked plaits", string(parting.LoosePlaits): "plaits laid back", string(parting.Cornrows): "cornrows",
	string(parting.Across):     "across the head",
	string(parting.Horizontal): "side to side", string(parting.StraightBack): "straight back",
	string(parting.MoveRow): "part line moved", string(parting.MovePart): "part in a row moved", string(parting.Merge): "joined",
	string(plait.Whole): "to the ends", string(plait.Half): "half, then twisted", string(plait.Anchor): "a few turns, then twisted",
	string(parting.LeaveOut): "left out", string(parting.Lock): "locked",
}

// said is a value of the document as people say it.
func said[T ~string](value T) string {
	if said, ok := spoken[string(value)]; ok {
		return said
	}
	return string(value)
}

func yesNo(v bool) string {
	if v {
		return "yes"
	}
	return "no"
}

// orElse writes a number, or a word in place of 0.
func orElse(n int, word string) string {
	if n == 0 {
		return word
	}
	return strconv.Itoa(n)
}

// fields are all fields of the document, in reading order.
var fields = append([]field{
	{"head.circumferenceMm", "Around the head", Length, func(in Input) string { return number(in.Head.Circumference) }},
	{"head.frontToNapeMm", "Front to nape", Length, func(in Input) string { return number(in.Head.FrontToNape) }},
	{"head.earToEarMm", "Ear to ear", Length, func(in Input) string { return number(in.Head.EarToEar) }},
	{"head.hairBulkMm", "Hair under the tape", Length, func(in Input) string { return number(in.Head.HairBulk) }},
	{"head.ratio", "Head width ÷ length", Plain, func(in Input) string { return number(in.Head.Ratio) }},
	{"hair.frontMm", "Own hair in front", Length, func(in Input) string { return number(in.Hair.Front) }},
	{"hair.sidesMm", "Own hair at the sides", Length, func(in Input) string { return number(in.Hair.Sides) }},
	{"hair.crownMm", "Own hair at the crown", Length, func(in Input) string { return number(in.Hair.Crown) }},
	{"hair.napeMm", "Own hair at the nape", Length, func(in Input) string { return number(in.Hair.Nape) }},
	{"hair.densityPerCm2", "Hair density", Plain, func(in Input) string { return number(in.Hair.Density) }},
	{"hair.strandUm", "Strand", Plain, func(in Input) string { return number(in.Hair.Strand) }},
	{"hair.texture", "Texture", Plain, func(in Input) string { return string(in.Hair.Texture) }},
	{"hair.edges", "Edges", Plain, func(in Input) string { return string(in.Hair.Edges) }},
	{"hair.tenderScalp", "Tender scalp", Plain, func(in Input) string { return yesNo(in.Hair.Tender) }},
	{"child", "A child", Plain, func(in Input) string { return yesNo(in.Child) }},
	{"ownHead", "Own head, own hands", Plain, func(in Input) string { return yesNo(in.OwnHead) }},
	{"hairline.frontMm", "Front centre higher by", Length, func(in Input) string { return number(in.Hairline.Front) }},
	{"hairline.templeCorner.upMm", "Temple corner higher by", Length, func(in Input) string { return number(in.Hairline.TempleCorner.Up) }},
	{"hairline.templeCorner.backMm", "Temple corner further back by", Length, func(in Input) string { return number(in.Hairline.TempleCorner.Back) }},
	{"hairline.temple.upMm", "Temple higher by", Length, func(in Input) string { return number(in.Hairline.Temple.Up) }},
	{"hairline.temple.backMm", "Temple further back by", Length, func(in Input) string { return number(in.Hairline.Temple.Back) }},
	{"hairline.sideburn.upMm", "Sideburn higher by", Length, func(in Input) string { return number(in.Hairline.Sideburn.Up) }},
	{"hairline.sideburn.backMm", "Sideburn further back by", Length, func(in Input) string { return number(in.Hairline.Sideburn.Back) }},
	{"hairline.behindEar.upMm", "Hairline behind the ear higher by", Length, func(in Input) string { return number(in.Hairline.BehindEar.Up) }},
	{"hairline.behindEar.backMm", "Hairline behind the ear further back by", Length, func(in Input) string { return number(in.Hairline.BehindEar.Back) }},
	{"hairline.napeCorner.upMm", "Nape corner higher by", Length, func(in Input) string { return number(in.Hairline.NapeCorner.Up) }},
	{"hairline.napeCorner.backMm", "Nape corner further back by", Length, func(in Input) string { return number(in.Hairline.NapeCorner.Back) }},
	{"parting.structure", "Structure", Plain, func(in Input) string { return in.Parting.Structure.Name() }},
	{"parting.part.kind", "Part line", Plain, func(in Input) string { return said(in.Parting.Part.Kind) }},
	{"parting.part.offsetMm", "Part line left of the middle", Length, func(in Input) string { return number(in.Parting.Part.Offset) }},
	{"parting.part.endOffsetMm", "Its end left of the middle", Length, func(in Input) string { return number(in.Parting.Part.EndOffset) }},
	{"parting.part.stopMm", "Part line stops after", Length, func(in Input) string { return number(in.Parting.Part.Stop) }},
	{"parting.part.earPartMm", "Ear-to-ear part forward by", Length, func(in Input) string { return number(in.Parting.Part.Ear) }},
	{"parting.front.pattern", "Front pattern", Plain, func(in Input) string { return said(in.Parting.Front.Pattern) }},
	{"parting.front.widthMm", "Front section width", Length, func(in Input) string { return number(in.Parting.Front.Width) }},
	{"parting.front.heightMm", "Front section height", Length, func(in Input) string { return number(in.Parting.Front.Height) }},
	{"parting.front.ramp", "Front sections grow to, times", Plain, func(in Input) string { return number(in.Parting.Front.Ramp) }},
	{"parting.front.along", "Front rows grow along to, times", Plain, func(in Input) string { return number(in.Parting.Front.Along) }},
	{"parting.back.pattern", "Back pattern", Plain, func(in Input) string { return said(in.Parting.Back.Pattern) }},
	{"parting.back.widthMm", "Back section width", Length, func(in Input) string { return number(in.Parting.Back.Width) }},
	{"parting.back.heightMm", "Back section height", Length, func(in Input) string { return number(in.Parting.Back.Height) }},
	{"parting.back.ramp", "Back sections grow to, times", Plain, func(in Input) string { return number(in.Parting.Back.Ramp) }},
	{"parting.back.along", "Back rows grow along to, times", Plain, func(in Input) string { return number(in.Parting.Back.Along) }},
	{"parting.rows", "Rows of individuals", Plain, func(in Input) string { return strconv.Itoa(in.Parting.Rows) }},
	{"parting.peakRow", "Second row at the peak", Plain, func(in Input) string { return yesNo(in.Parting.Peak) }},
	{"parting.perSide", "Individuals on each side of the part", Plain, func(in Input) string { return orElse(in.Parting.PerSide, "as many as the width gives") }},
	{"parting.napeGuard", "Nape guard", Plain, func(in Input) string { return yesNo(in.Parting.NapeGuard) }},
	{"parting.base.kind", "Base", Plain, func(in Input) string { return said(in.Parting.Base.Kind) }},
	{"parting.base.run", "Cornrows run", Plain, func(in Input) string { return said(in.Parting.Base.Run) }},
	{"parting.base.tracks", "Cornrows behind", Plain, func(in Input) string { return strconv.Itoa(in.Parting.Base.Cornrows) }},
	{"parting.base.sideTracks", "Cornrows on each side", Plain, func(in Input) string { return strconv.Itoa(in.Parting.Base.SideCornrows) }},
	{"parting.base.mergeInto", "Cornrows merge into", Plain, func(in Input) string { return strconv.Itoa(in.Parting.Base.MergeInto) }},
	{"parting.base.mergeAfterMm", "Cornrows merge after", Length, func(in Input) string { return number(in.Parting.Base.MergeAfter) }},
	{"parting.base.mergeSides", "Side cornrows merge", Plain, func(in Input) string { return yesNo(in.Parting.Base.MergeSides) }},
	{"parting.base.noRing", "Net without a ring", Plain, func(in Input) string { return yesNo(in.Parting.Base.NoRing) }},
	{"parting.base.tails", "Tails", Plain, func(in Input) string { return said(in.Parting.Base.Tails) }},
	{"parting.base.under", "The net lies on", Plain, func(in Input) string { return underName(in.Parting.Base) }},
	{"parting.base.hooks", "Pieces on the base", Plain, func(in Input) string { return orElse(in.Parting.Base.Hooks, "as many as their distance gives") }},
	{"parting.grounds", "Parts with a base of their own", Plain, func(in Input) string { return each(in.Parting.Grounds, groundText) }},
	{"parting.base.spacingMm", "Pieces on the base apart by", Length, func(in Input) string { return number(in.Parting.Base.Spacing) }},
	{"parting.design.side", "Side of the design", Plain, func(in Input) string { return said(in.Parting.Design.Side) }},
	{"parting.design.tracks", "Cornrows of the design", Plain, func(in Input) string { return strconv.Itoa(in.Parting.Design.Cornrows) }},
	{"parting.design.reach", "Share of the front the design takes", Plain, func(in Input) string { return number(in.Parting.Design.Reach) }},
	{"parting.design.fed", "Hair fed into the design", Plain, func(in Input) string { return yesNo(in.Parting.Design.Fed) }},
	{"parting.design.between", "Individuals between the cornrows of the design", Plain, func(in Input) string { return yesNo(in.Parting.Design.Between) }},
	{"parting.design.rings", "Rings on a cornrow of the design", Plain, func(in Input) string { return strconv.Itoa(in.Parting.Design.Rings) }},
	{"parting.design.pieces", "Pieces on the design", Plain, func(in Input) string { return yesNo(in.Parting.Design.Pieces) }},
	{"parting.design.curved", "Design curved", Plain, func(in Input) string { return yesNo(in.Parting.Design.Curved) }},
	{"parting.edgesMm", "Edges left out", Length, func(in Input) string { return number(in.Parting.Edges) }},
	{"parting.leftOut", "Spots left out", Plain, spotsText},
	{"parting.edits", "Changes by hand", Plain, editsText},
	{"plaits.far", "How far it is plaited", Plain, func(in Input) string { return said(in.Plaits.Far) }},
	{"plaits.anchorMm", "A few turns go over", Length, func(in Input) string { return number(in.Plaits.Anchor) }},
	{"plaits.fedMm", "Hair fed into the ends", Length, func(in Input) string { return number(in.Plaits.Fed) }},
	{"plaits.direction", "Outer strand", Plain, func(in Input) string { return string(in.Plaits.Direction) }},
	{"plaits.tension", "Plaits at the scalp", Plain, func(in Input) string { return string(in.Plaits.Tension) }},
	{"plaits.band", "Elastic at the root", Plain, func(in Input) string { return yesNo(in.Plaits.Band) }},
	{"pieces", "Pieces", Plain, func(in Input) string { return each(in.Pieces, pieceText) }},
	{"wanted", "What is wished", Plain, func(in Input) string { return in.wantedText() }},
	{"wishes.updo", "It will be tied up", Plain, func(in Input) string { return yesNo(in.Wish().Updo) }},
	{"wishes.water", "Water", Plain, func(in Input) string { return said(in.Wish().Water) }},
	{"wishes.weeks", "Weeks of wear wished for", Plain, func(in Input) string { return orElse(in.Wish().Weeks, "open") }},
	{"wishes.reuse", "Pieces used again", Plain, func(in Input) string { return yesNo(in.Wish().Reuse) }},
	{"wishes.quick", "Off quickly", Plain, func(in Input) string { return yesNo(in.Wish().Quick) }},
	{"wishes.hours", "Hours for attaching", Plain, func(in Input) string { return orElse(in.Wish().Hours, "open") }},
	{"wishes.hide", "Own hair hidden", Plain, func(in Input) string { return said(in.Wish().Hide) }},
	{"wishes.noTracks", "We can't cornrow", Plain, func(in Input) string { return yesNo(in.Wish().NoCornrows) }},
	{"wishes.hand", "Hand", Plain, func(in Input) string { return said(in.Wish().Hand) }},
	{"ways", "Methods", Plain, func(in Input) string { return each(in.Ways, func(w Way) string { return wayText(in, w) }) }},
	{"feed", "Hair fed into ends", Plain, func(in Input) string { return feedText(in) }},
	{"products", "Products", Plain, func(in Input) string { return each(in.Products, productText) }},
	{"avoid", "Products the head does not bear", Plain, func(in Input) string { return productNames(in.Avoid) }},
	{"uses", "What goes where", Plain, func(in Input) string { return each(in.Uses, func(u Use) string { return useText(in, u) }) }},
	{"spares.percent", "Spares", Percent, func(in Input) string { return number(in.Spares.Percent) }},
	{"spares.least", "Spares at least", Plain, func(in Input) string { return strconv.Itoa(in.Spares.Least) }},
	{"spares.amount", "Spares as much as", Plain, func(in Input) string { return said(in.Spares.Amount) }},
	{"spares.spoiltShare", "Share that is spoilt", Plain, func(in Input) string { return number(in.Spares.Spoilt) }},
	{"accents", "Accents", Plain, func(in Input) string { return each(in.Accents, func(a Accent) string { return accentText(in, a) }) }},
	{"statureMm", "Height standing", Length, func(in Input) string { return number(in.Stature) }},
	{"trim.shape", "Ends cut", Plain, func(in Input) string { return said(in.trimmed().Shape) }},
	{"trim.line", "Ends cut to the", Plain, func(in Input) string { return in.trimmed().Line }},
	{"price.person", "At the rate of", Plain, func(in Input) string { return in.PricedBy().Person }},
	{"price.bringsHair", "Hair brought along", Plain, func(in Input) string { return yesNo(in.PricedBy().BringsHair) }},
	{"price.extras", "Priced besides", Plain, func(in Input) string { return each(in.PricedBy().Extras, extraText) }},
	{"day.install", "Day of the install", Plain, func(in Input) string { return in.InstallDay() }},
	{"day.withinMin", "Time at the head", Plain, func(in Input) string { return within(in.Dated()) }},
	{"day.hands", "Who works", Plain, func(in Input) string { return each(in.Dated().Hands, handText) }},
	{"day.trials", "Pieces timed", Plain, func(in Input) string { return each(in.Dated().Trials, trialText) }},
	{"day.order.apart", "One side before the other", Plain, func(in Input) string { return yesNo(in.WorkOrder().Apart) }},
	{"day.order.byRow", "Attached row by row", Plain, func(in Input) string { return yesNo(in.WorkOrder().ByRow) }},
	{"day.order.rows", "Own order of rows", Plain, func(in Input) string { return words.List(in.WorkOrder().Rows) }},
	{"day.sittings.longestMin", "Longest sitting, min", Plain, sat(func(s Sittings) string { return number(s.Longest) })},
	{"day.sittings.at", "Sittings begin", Plain, sat(func(s Sittings) string { return s.At })},
	{"day.sittings.everyDays", "Days between sittings", Plain, sat(func(s Sittings) string { return strconv.Itoa(s.Every) })},
	{"day.sittings.home", "Sittings at home", Plain, sat(func(s Sittings) string { return yesNo(s.Home) })},
	{"day.sittings.breaks.afterMin", "Work before a break, min", Plain, sat(func(s Sittings) string { return number(s.Breaks.After) })},
	{"day.sittings.breaks.longMin", "Break, min", Plain, sat(func(s Sittings) string { return number(s.Breaks.Long) })},
	{"day.sittings.breaks.arms", "Arms put down", Plain, sat(func(s Sittings) string { return yesNo(s.Breaks.Arms) })},
	{"day.sittings.slots", "Sittings settled", Plain, sat(func(s Sittings) string { return each(s.Slots, slotText) })},
	{"fill.piece", "Piece to fill with", Plain, func(in Input) string { return in.Piece(in.Fill.Piece).Name }},
	{"fill.count", "Pieces to fill with", Plain, func(in Input) string { return strconv.Itoa(in.Fill.Count) }},
	{"fill.at", "Spots filled", Plain, func(in Input) string { return each(in.Fill.At, parting.Direction.Name) }},
}, customFields()...)

// extraText says an extra so that any difference shows.
func extraText(x quote.Extra) string {
	return fmt.Sprintf("%s %d.%02d", x.Name, x.Amount/100, max(x.Amount, -x.Amount)%100)
}

// spotsText sums spots up so that any difference shows.
func spotsText(in Input) string {
	if len(in.Parting.LeftOut) == 0 {
		return "none"
	}
	parts := make([]string, len(in.Parting.LeftOut))
	for i, s := range in.Parting.LeftOut {
		parts[i] = fmt.Sprintf("%.0f mm %s", s.Radius, s.At.Name())
	}
	return strings.Join(parts, ", ")
}

// editsText counts the changes by hand by what they do.
func editsText(in Input) string {
	if len(in.Parting.Edits) == 0 {
		return "none"
	}
	parts := make([]string, len(in.Parting.Edits))
	for i, e := range in.Parting.Edits {
		parts[i] = said(e.Kind) + " " + e.At.Name()
	}
	return strings.Join(parts, ", ")
}

// each joins what is said of the entries of a list.
func each[T any](entries []T, text func(T) string) string {
	parts := make([]string, len(entries))
	for i, e := range entries {
		parts[i] = text(e)
	}
	if len(parts) == 0 {
		return "none"
	}
	return strings.Join(parts, "; ")
}

// pieceText says a piece so that any difference shows. Prices are without a currency,
// which the document does not know.
func pieceText(p hair.Piece) string {
	parts := []string{p.Name, strings.ToLower(p.Form.Facts().Name)}
	if p.Colour != "" {
		parts = append(parts, p.Colour)
	}
	parts = append(parts, invalid.Length(p.Length), number(p.Thickness)+" mm thick", number(p.Mass)+" g")
	if p.Loop > 0 {
		parts = append(parts, "loop "+number(p.Loop)+" mm")
	}
	parts = append(parts, fmt.Sprintf("%d a pack", p.Pack.Units))
	if p.Pack.Cuts > 1 || p.Pack.Splits > 1 {
		parts = append(parts, fmt.Sprintf("cut into %d, split into %d", p.Pack.Cuts, p.Pack.Splits))
	}
	if p.Sold > 0 {
		parts = append(parts, "sold "+invalid.Length(p.Sold)+" long")
	}
	if p.Stiffness != "" {
		parts = append(parts, string(p.Stiffness))
	}
	for _, o := range p.Offers {
		parts = append(parts, strings.TrimSpace(fmt.Sprintf("%d for %d.%02d %s", o.Packs, o.Price/100, o.Price%100, o.Supplier)))
	}
	if p.Item != "" {
		parts = append(parts, "of the supplies")
	}
	return strings.Join(parts, ", ")
}

// wayText says a way so that any difference shows.
func wayText(in Input, w Way) string {
	parts := []string{in.comparedName(w.Key)}
	m, _ := method.Lookup(w.Method)
	decided := m.Decided(w.Choices)
	settings := m.Set(w.Settings)
	for _, p := range m.Parameters {
		if !decided.Cover(p.Of) {
			continue
		}
		value := number(settings[p.Key])
		switch p.Unit {
		case method.Length:
			value = invalid.Length(settings[p.Key])
		case method.Fine:
			value += " mm"
		}
		parts = append(parts, strings.ToLower(p.Name)+" "+value)
	}
	for _, c := range m.Choices {
		if !decided.Cover(c.Of) {
			continue
		}
		i := slices.IndexFunc(c.Options, func(o method.Option) bool { return o.Key == decided[c.Key] })
		if i >= 0 {
			parts = append(parts, strings.ToLower(c.Name)+": "+strings.ToLower(c.Options[i].Name))
		}
	}
	if h := w.Wrapping; h != nil {
		if h.Name != "" {
			parts = append(parts, h.Name)
		}
		if h.Colour != "" {
			parts = append(parts, h.Colour)
		}
		parts = append(parts, fmt.Sprintf("strands of %s, %d a pack of %s g for %d.%02d", invalid.Length(h.StrandLength), h.Strands, number(h.PackMass), h.Price/100, h.Price%100))
	}
	return strings.Join(parts, ", ")
}

// accentText says an accent so that any difference shows.
func accentText(in Input, a Accent) string {
	parts := []string{fmt.Sprintf("%d × %s", a.Count, in.AccentName(a)), a.Where.Name()}
	for _, d := range a.Where.Places[min(1, len(a.Where.Places)):] {
		parts = append(parts, d.Name())
	}
	if t := a.Thing; t != nil {
		parts = append(parts, fmt.Sprintf("%s g each, %d a pack for %d.%02d", number(t.Mass), t.Pack, t.Price/100, t.Price%100))
	}
	return strings.Join(parts, ", ")
}

// useText says a use so that any difference shows.
func useText(in Input, u Use) string {
	parts := []string{u.Where.Name()}
	for _, d := range u.Where.Places[min(1, len(u.Where.Places)):] {
		parts = append(parts, d.Name())
	}
	if u.Count > 0 {
		parts = append(parts, fmt.Sprintf("%d at each spot", u.Count))
	}
	if u.Piece != "" {
		parts = append(parts, in.Piece(u.Piece).Name)
	}
	for _, s := range u.Mix {
		parts = append(parts, fmt.Sprintf("%d of %s", s.Parts, in.Piece(s.Piece).Name))
	}
	if u.Way != "" {
		parts = append(parts, in.comparedName(u.Way))
	}
	if u.Apart > 0 {
		parts = append(parts, number(u.Apart)+" times the usual distance")
	}
	return strings.Join(parts, ", ")
}

// Changes lists the fields in which b differs from a, in reading order.
func Changes(a, b Input) []Change {
	out := []Change{}
	for _, f := range fields {
		if from, to := f.text(a), f.text(b); from != to {
			out = append(out, Change{f.path, f.label, f.unit, from, to})
		}
	}
	return out
}

// customFields are the customs as they are told apart.
func customFields() []field {
	out := make([]field, len(Customs))
	for i, c := range Customs {
		out[i] = field{"customs." + c.Key, c.Ask, Plain, func(in Input) string {
			taken := in.Custom(c.Key)
			for _, s := range c.Sides {
				if s.Key == taken {
					return s.Name
				}
			}
			return taken
		}}
	}
	return out
}

// within says how long it may take.
func within(d Day) string {
	if d.Within == 0 {
		return "open"
	}
	return number(d.Within) + " min"
}

// handText says one who works so that any difference shows.
func handText(h Hand) string {
	parts := []string{h.Name, string(h.Hand), said(h.Does)}
	if h.OwnHead != 0 {
		parts = append(parts, "own head "+number(h.OwnHead)+" times as long")
	}
	if len(h.New) > 0 {
		parts = append(parts, "new to "+words.List(h.New))
	}
	if h.Evening {
		parts = append(parts, "the evening before")
	}
	for _, l := range h.Logged {
		parts = append(parts, fmt.Sprintf("%s %s times by %d installs", l.Skill, number(l.Factor), l.Installs))
	}
	if h.Person != "" {
		parts = append(parts, "of the studio")
	}
	return words.List(parts)
}

// trialText says a trial so that any difference shows.
func trialText(t Trial) string {
	parts := make([]string, len(t.Minutes))
	for i, m := range t.Minutes {
		parts[i] = number(m)
	}
	return fmt.Sprintf("%s by %s: %s min for %s", t.Skill, t.By, words.List(parts), number(t.Rate))
}

// sat says something of how the work is cut up, where the plan settled that.
func sat(text func(Sittings) string) func(Input) string {
	return func(in Input) string {
		if s := in.Dated().Sittings; s != nil {
			return text(*s)
		}
		return "as usual"
	}
}

// slotText says a settled sitting so that any difference shows.
func slotText(s Slot) string {
	return fmt.Sprintf("%d days on, at %s, %s min", s.After, s.At, number(s.Longest))
}

// underName is what a net lies on, as people speak of it.
func underName(b parting.Base) string {
	if b.Under == parting.OverPlaits {
		return "small plaits"
	}
	return "cornrows"
}

// groundText says the base of a part of the head so that any difference shows.
func groundText(g parting.OwnBase) string {
	return fmt.Sprintf("%s: %s, %s, %d, %s", said(g.Part), said(g.Kind), said(g.Run), g.Cornrows, said(g.Tails))
}

// feedText says the hair fed into ends so that any difference shows.
func feedText(in Input) string {
	if in.Feed == nil {
		return "as usual"
	}
	h := in.Feed
	return fmt.Sprintf("%s %s, %s g for %d.%02d", h.Name, h.Colour, number(h.PackMass), h.Price/100, h.Price%100)
}

// productNames are the names of products in words.
func productNames(keys []ProductKey) string {
	return each(keys, func(k ProductKey) string { return k.Name() })
}

// productText says a product so that any difference shows.
func productText(c Chosen) string {
	return fmt.Sprintf("%s: %s, %d for %d.%02d", c.Product, c.Thing.Name, c.Thing.Pack, c.Thing.Price/100, c.Thing.Price%100)
}
