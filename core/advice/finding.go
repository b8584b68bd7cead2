package advice

import (
	"fmt"
	"slices"
)

// Finding is what a rule finds at one place: its code, how bad it is there (more is
// worse), and the notice, worded only when it is the worst of its kind.
type Finding struct {
	Code   Code
	Grade  float64
	Notice func() Notice
}

// Gathered collects findings of many places into one notice for each code and group.
type Gathered struct {
	kinds []*kind
}

// kind is the findings of one code and group.
type kind struct {
	code  Code
	group string
	worst Finding
	// found is at how many places, about what they belong to, each once.
	found int
	about []string
}

// Add notes a finding at a place that belongs to id, in a group that is told apart from
// others, such as a method.
func (g *Gathered) Add(group, id string, f Finding) {
	i := slices.IndexFunc(g.kinds, func(k *kind) bool { return k.code == f.Code && k.group == group })
	if i < 0 {
		g.kinds = append(g.kinds, &kind{code: f.Code, group: group, worst: f})
		i = len(g.kinds) - 1
	}
	k := g.kinds[i]
	if f.Grade > k.worst.Grade {
		k.worst = f
	}
	k.found++
	if n := len(k.about); n == 0 || k.about[n-1] != id { // places come in order
		k.about = append(k.about, id)
	}
}

// Notices are one for each kind, worded at the place where it is worst. One that is so at
// all places(group) of a group is about no place in
// particular.
func (g *Gathered) Notices(places func(group string) int) []Notice {
	out := []Notice{}
	for _, k := range g.kinds {
		n := k.worst.Notice()
		n.About = k.about
		switch all := places(k.group); {
		case k.found >= all:
			n.About = []string{}
		case k.found == 1:
			n.Reason = "At 1 spot: " + n.Reason
		default:
			n.Reason = fmt.Sprintf("At %d of %d spots. The worst: %s", k.found, all, n.Reason)
		}
		out = append(out, n)
	}
	return out
}
