package sheet

import (
	"fmt"
	"regexp"
	"slices"

	"kladotex/core/attach"
	"kladotex/core/method"
	"kladotex/core/method/figure"
	"kladotex/core/method/moves"
	"kladotex/core/plan"
	"kladotex/core/words"
)

var placeholder = regexp.MustCompile(`\{(\w+)\}`)

// stepText puts a step's lengths in.
func (w *page) stepText(s method.Step) string {
	return placeholder.ReplaceAllStringFunc(s.Text, func(name string) string {
		return w.style.Unit.Length(s.Lengths[name[1:len(name)-1]])
	})
}

// groundNames are what pieces hang on where no plait hangs loose, as a heading says it.
var groundNames = map[method.Ground]string{
	method.OnCornrow: "On the cornrows", method.OnNet: "Through the net", method.OnLink: "On the linked plaits", method.OnLaid: "On plaits laid back", method.OnEnd: "From the ends of the cornrows",
}

// methods are how the pieces go on and come off: each method once, and then where it is done
// otherwise, with what is otherwise.
func (w *page) methods() []lane {
	before, after := attach.Around(w.plan.Input)
	lanes := []lane{w.lane(2, "Before the first piece", w.steps(before, nil)...)}
	var told []attach.Attachment
	for _, x := range w.plan.Result.Work {
		i := slices.IndexFunc(told, func(y attach.Attachment) bool { return y.Method == x.Method && y.Ground == x.Ground })
		if i < 0 {
			told = append(told, x)
			lanes = append(lanes, w.method(x))
			continue
		}
		lanes = append(lanes, w.otherwise(x, told[i]))
	}
	return append(lanes, w.lane(2, "After the last piece", w.steps(after, nil)...))
}

// workName is what a heading calls a method at work.
func (w *page) workName(x attach.Attachment) string {
	name := w.plan.Input.WayName(x.Way)
	if x.Ground != method.OnPlait {
		name = groundNames[x.Ground] + ": " + name
	}
	if len(w.plan.Result.Need.Pieces) > 1 {
		name += ", " + w.plan.Input.Piece(x.Piece).Name
	}
	return name + ", " + words.Count(x.Pieces, "piece")
}

// method is how one goes on, its usual mistake, and how it comes off.
func (w *page) method(x attach.Attachment) lane {
	m, _ := method.Lookup(x.Method)
	draws := w.steps(x.Steps, nil)
	draws = append(draws, func() {
		w.say(9, "", soft, w.workFacts(x)+fmt.Sprintf("Usual wear: %d to %d weeks.", m.WearWeeks[0], m.WearWeeks[1]))
		w.Ln(1)
	}, func() {
		wrong, _ := moves.Lookup(m.Wrong)
		w.beside("!", "Usual mistake: "+m.Mistake+" Fix: "+m.Mend, wrong, 0)
	})
	return w.lane(2, w.workName(x), append(draws, w.titled("To take it off", w.steps(x.TakeDown, nil))...)...)
}

// otherwise is where a method is done otherwise than one told before.
func (w *page) otherwise(x, as attach.Attachment) lane {
	draws := w.steps(x.Steps, as.Steps)
	if facts := w.workFacts(x); facts != "" {
		draws = append(draws, func() { w.say(9, "", soft, facts) })
	}
	return w.lane(2, w.workName(x), draws...)
}

// workFacts are what a method meets at its places.
func (w *page) workFacts(x attach.Attachment) (facts string) {
	u := w.style.Unit
	if x.Ground == method.OnPlait {
		facts = fmt.Sprintf("Plait to hide: %s, %s mm thick. ", fromTo(x.Plait, u.Length), fromTo(x.Thickness, func(mm float64) string { return fmt.Sprintf("%.1f", mm) }))
	}
	whole := func(v float64) string { return fmt.Sprintf("%.0f", v) }
	if x.Passes.Most > 0 {
		facts += "Passes: " + fromTo(x.Passes, whole) + ". "
	}
	if x.Ribbon.Most > 0 {
		facts += fmt.Sprintf("Wrapping hair: %s in %s turns. ", fromTo(x.Ribbon, u.Length), fromTo(x.Turns, whole))
	}
	return facts
}

// fromTo writes a number that differs between places.
func fromTo(b plan.Between, write func(float64) string) string {
	least, most := write(b.Least), write(b.Most)
	if least == most {
		return most
	}
	return least + " to " + most
}

// steps are numbered moves with their pictures. Those that are the same in a list told before
// are not told again.
func (w *page) steps(list, as []method.Step) (draws []func()) {
	var last *moves.Clip
	known := func(s method.Step) bool {
		return slices.ContainsFunc(as, func(t method.Step) bool { return w.stepText(t) == w.stepText(s) })
	}
	for i := 0; i < len(list); i++ {
		s := list[i]
		if known(s) {
			from := i
			for i+1 < len(list) && known(list[i+1]) {
				i++
			}
			last = list[i].Shows
			text := fmt.Sprintf("Steps %d to %d as above.", from+1, i+1)
			if from == i {
				text = fmt.Sprintf("Step %d as above.", i+1)
			}
			draws = append(draws, func() {
				w.say(9.5, "", soft, text)
				w.Ln(1)
			})
			continue
		}
		at := stills(s.Shows, last)
		if s.Shows != nil {
			last = s.Shows
		}
		number := fmt.Sprint(i + 1)
		draws = append(draws, func() { w.step(number, s, at) })
	}
	return draws
}

// step is a move: a single picture beside its words, several under them.
func (w *page) step(number string, s method.Step, at []int) {
	if len(at) == 0 {
		w.move(number, w.stepText(s), 0)
		return
	}
	f, _ := moves.Lookup(s.Shows.Figure)
	all := f.Stills()
	if len(at) == 1 {
		w.beside(number, w.stepText(s), f, all[at[0]])
		return
	}
	w.move(number, w.stepText(s), 0)
	w.pictures(len(at), func(k int) (figure.Frame, figure.Stage) { return f.Frames[all[at[k]]], f.Stage })
}

// beside is a move with one picture beside it.
func (w *page) beside(number, text string, f figure.Figure, still int) {
	y := w.GetY()
	w.move(number, text, moveWide+moveGap)
	end := w.GetY()
	w.figure(f.Frames[still], f.Stage, w.left+moveIndent, y+0.6)
	w.SetY(max(end, y+moveWide*moveShape+moveGap))
	w.SetX(w.left)
}

// move is what is said of one, right of a room of its picture.
func (w *page) move(number, text string, picture float64) {
	w.font("B", 9.5)
	w.ink(leaf)
	w.CellFormat(moveIndent, lineHeight, number, "", 0, "L", false, 0, "")
	w.font("", 9.5)
	w.ink(ink)
	left := w.left + moveIndent + picture
	w.SetX(left)
	for _, line := range w.SplitText(text, w.width-moveIndent-picture) {
		w.SetX(left)
		w.CellFormat(w.width-moveIndent-picture, lineHeight, line, "", 2, "L", false, 0, "")
	}
	w.Ln(1)
}
