package hours

import (
	"fmt"
	"slices"
	"strings"

	"kladotex/core/craft"
	"kladotex/core/need"
	"kladotex/core/pace"
	"kladotex/core/plan"
	"kladotex/core/words"
)

// date gives the sittings their dates: those of a helper on the evenings before the first.
func (p *DayPlan) date(in plan.Input) {
	day := in.InstallDay()
	if day == "" {
		return
	}
	want := in.Sittings()
	evenings := p.evenings()
	for i := range p.Sittings {
		s, k := &p.Sittings[i], i-evenings
		switch {
		case k < 0:
			s.On = addDays(day, k)
			continue
		case k == 0:
		case k < len(want.Slots) && want.Slots[k].After > 0:
			day = addDays(day, want.Slots[k].After)
		default:
			day = addDays(day, want.Every)
		}
		s.On = day
	}
}

// due is what comes before the first sitting, the earliest first.
func (d *Work) due(in plan.Input, home []need.Task, p *DayPlan) []DayDue {
	before, sittings := p.evenings(), p.Sittings // the first evening, days before the install
	out := []DayDue{}
	for _, t := range home {
		out = append(out, DayDue{Key: t.Key, Title: t.Title, Before: max(t.Before, before), Minutes: t.Minutes, Wait: t.Wait})
	}
	first := before // hair is at home the day the first of it is prepared
	for _, t := range out {
		first = max(first, t.Before)
	}
	out = append(out, DayDue{Key: "hair", Title: "Hair at home, counted", Before: first})
	for _, step := range d.ownHair() {
		step.Before = before + 1
		out = append(out, step)
	}
	if len(sittings) > 0 {
		out = append(out, DayDue{Key: "eat", Title: "Eat and drink before you sit down", Before: before, At: earlier(sittings[0].At, craft.EatAhead), Minutes: craft.EatTime})
	}
	slices.SortStableFunc(out, func(a, b DayDue) int { return b.Before - a.Before })
	if day := in.InstallDay(); day != "" {
		for i := range out {
			out[i].On = addDays(day, -out[i].Before)
		}
	}
	return out
}

// earlier is the time of the clock minutes before another of the same day.
func earlier(at string, minutes float64) string {
	m := int(max(0, minutesOf(at)-minutes))
	return fmt.Sprintf("%02d:%02d", m/60, m%60)
}

// addDays is the date days after another, of the calendar as it is used today.
func addDays(on string, days int) string {
	var y, m, d int
	if _, err := fmt.Sscanf(on, "%d-%d-%d", &y, &m, &d); err != nil {
		return ""
	}
	for d += days; d < 1; d += monthDays(y, m) {
		if m--; m == 0 {
			y, m = y-1, 12
		}
	}
	for d > monthDays(y, m) {
		d -= monthDays(y, m)
		if m++; m == 13 {
			y, m = y+1, 1
		}
	}
	return fmt.Sprintf("%04d-%02d-%02d", y, m, d)
}

// monthDays are the days of a month.
func monthDays(y, m int) int {
	switch {
	case m == 2 && y%4 == 0 && (y%100 != 0 || y%400 == 0):
		return 29
	case m == 2:
		return 28
	case m == 4 || m == 6 || m == 9 || m == 11:
		return 30
	}
	return 31
}

// says is what there is to know about a day, the truth told kindly.
func (d *Work) says(p *DayPlan) []string {
	out := []string{}
	h := d.Hands[0]
	if likely := p.Hours.Total.Likely; likely > 1.1*p.Practised {
		why := []string{}
		if d.Input.OwnHead {
			why = append(why, "it is your own head, and the back is worked blind")
		}
		if h.Hand == pace.Beginner || h.Hand == pace.Used {
			why = append(why, "hands get quicker with every head")
		}
		if len(h.New) > 0 {
			why = append(why, "the first pieces of a new method are slow; after about ten there is a rhythm")
		}
		if len(why) > 0 {
			out = append(out, fmt.Sprintf("Practised hands take about %s on another's head; allow %s. That is usual: %s.", words.Minutes(p.Practised), words.Minutes(likely), words.List(why)))
		}
	}
	for k, h := range d.Hands {
		if said := d.loggedSays(k, h); said != "" {
			out = append(out, said)
		}
	}
	for i, s := range p.Sittings {
		name := p.SittingName(i)
		if len(p.Sittings) == 1 {
			name = "The day"
		}
		if s.Minutes > s.Limit {
			out = append(out, fmt.Sprintf("%s lasts %s, longer than the %s wished: one row is longer by itself. Make sections larger there, or sit longer.", name, words.Minutes(s.Minutes), words.Minutes(s.Limit)))
		}
		if s.Minutes > craft.LongDay {
			out = append(out, fmt.Sprintf("%s lasts %s: more than eight hours is a lot for a head and for hands. Two sittings are kinder, and quicker.", name, words.Minutes(s.Minutes)))
		}
		if late := minutesOf(s.At) + s.Minutes; late > 23*60 {
			out = append(out, fmt.Sprintf("%s would end about %02d:%02d. Begin earlier, or sit shorter and once more.", name, int(late/60)%24, int(late)%60))
		}
		if in := d.Input; in.Child && s.Minutes > craft.ChildStill {
			out = append(out, fmt.Sprintf("%s lasts %s: a child sits still for about two hours at the most, with breaks.", name, words.Minutes(s.Minutes)))
		}
	}
	if w := d.Input.Day; w != nil && w.Within > 0 && p.Sum() > w.Within {
		out = append(out, fmt.Sprintf("It takes about %s, longer than the %s you have.", words.Minutes(p.Sum()), words.Minutes(w.Within)))
	}
	return out
}

// loggedSays says how the hours of one who works follow their installs before, for what this head
// asks for; empty where they do not.
func (d *Work) loggedSays(k int, h plan.Hand) string {
	var parts []string
	installs := 0
	for _, t := range timeable(d.Solved) {
		for _, l := range h.Logged {
			if l.Skill == t.Skill {
				parts = append(parts, fmt.Sprintf("%s %.2g ×", strings.ToLower(t.Name), l.Factor))
				installs = max(installs, l.Installs)
			}
		}
	}
	if len(parts) == 0 {
		return ""
	}
	name := h.Name
	if d.Input.OwnHead && k == 0 {
		name = "you"
	}
	return fmt.Sprintf("Hours follow the log of %s, %d installs: %s what practised hands take.", name, installs, words.List(parts))
}

func minutesOf(at string) float64 {
	var h, m int
	if _, err := fmt.Sscanf(at, "%d:%d", &h, &m); err != nil {
		return 0
	}
	return float64(60*h + m)
}

// ownHair is what own hair of its length takes before it is parted, a step after the other.
func (d *Work) ownHair() []DayDue {
	long := d.Input.Hair.Longest()
	wash := DayDue{Key: "wash", Title: "Wash and detangle own hair", Minutes: craft.CurlTime + craft.CurlRate*long}
	switch d.Input.Custom(plan.Stretch) {
	case plan.CurlLeft:
		wash.Title += "; it dries, the curl left"
		return []DayDue{wash}
	case plan.Blown:
		return []DayDue{wash, {Key: "dry", Title: "Blow-dry own hair", Minutes: craft.BlowTime + craft.BlowRate*long}}
	}
	return []DayDue{wash, {Key: "dry", Title: "Dry and stretch own hair", Minutes: craft.WashTime + craft.WashRate*long - wash.Minutes}}
}
