package judge

import (
	"fmt"
	"math"
	"slices"

	"kladotex/core/craft"
	"kladotex/core/plan"
	"kladotex/core/wear"
	"kladotex/core/words"
)

// headLoad is what there is to say about the whole head.
func headLoad(sol *plan.Solved, places []float64, before []wear.Earlier) HeadLoad {
	slices.Sort(places)
	heavy, most, whose := HeadBears(sol.Input)
	dry := sol.Weight
	h := HeadLoad{
		Dry: dry, Soaked: craft.Soaked * dry, Heavy: heavy, Most: most,
		Usual: craft.UsualLoad, NoLimit: noLimit, Says: []string{},
	}
	if n := len(places); n > 0 {
		h.Median, h.Greatest = math.Round(10*places[n/2])/10, math.Round(10*places[n-1])/10
	}
	switch {
	case dry > h.Most:
		h.Says = append(h.Says, fmt.Sprintf("%s dry, about %s soaked%s: too heavy for most.", words.Grams(dry), words.Grams(h.Soaked), whose))
	case dry > h.Heavy:
		h.Says = append(h.Says, fmt.Sprintf("%s dry, about %s soaked%s: heavy to wear.", words.Grams(dry), words.Grams(h.Soaked), whose))
	case whose != "" && dry > craft.NearlyHeavy*h.Heavy:
		h.Says = append(h.Says, fmt.Sprintf("%s dry%s: nearly the %s from which it is heavy there. Soaked it weighs about %s. Fewer or shorter pieces are kinder.", words.Grams(dry), whose, words.Grams(h.Heavy), words.Grams(h.Soaked)))
	case whose != "":
		h.Says = append(h.Says, fmt.Sprintf("%s dry%s: under the %s from which it is heavy there. Soaked it weighs about %s.", words.Grams(dry), whose, words.Grams(h.Heavy), words.Grams(h.Soaked)))
	default:
		h.Says = append(h.Says, fmt.Sprintf("%s dry, about %s soaked: within what heads usually carry, 150 to %.0f g.", words.Grams(dry), words.Grams(h.Soaked), h.Heavy))
	}
	if h.Median > 0 && h.Greatest > 2*h.Median {
		h.Says = append(h.Says, fmt.Sprintf("Uneven: the heaviest spot carries %.1f mg a hair, %.1f times as much as a typical one. Lighten it, or give it more hair.", h.Greatest, h.Greatest/h.Median))
	}
	return h.against(before)
}

// against compares the load with what the same person wore before.
func (h HeadLoad) against(before []wear.Earlier) HeadLoad {
	var most, hurt wear.Earlier
	for _, b := range before {
		switch {
		case b.Mass <= 0:
		case b.Comfortable && b.Mass > most.Mass:
			most = b
		case !b.Comfortable && (hurt.Mass == 0 || b.Mass < hurt.Mass):
			hurt = b
		}
	}
	if most.Mass > 0 {
		word := fmt.Sprintf("%.0f %% lighter than", 100*(1-h.Dry/most.Mass))
		switch {
		case h.Dry > 1.02*most.Mass:
			word = fmt.Sprintf("%.0f %% heavier than", 100*(h.Dry/most.Mass-1))
		case h.Dry > 0.98*most.Mass:
			word = "as heavy as"
		}
		h.Says = append(h.Says, fmt.Sprintf("It is %s the heaviest install worn in comfort before: %s, %s.", word, most.What, words.Grams(most.Mass)))
	}
	if hurt.Mass > 0 && h.Dry >= hurt.Mass {
		h.Says = append(h.Says, fmt.Sprintf("An install of %s was tight or hurt before (%s); this one is no lighter.", words.Grams(hurt.Mass), hurt.What))
	}
	return h
}

// HeadSays are the sentences on what hangs on the whole head, the gravest first, held against what the same
// person wore before.
func HeadSays(sol *plan.Solved, before []wear.Earlier) []string {
	loads := make([]float64, len(sol.Places))
	for i := range sol.Places {
		loads[i], _, _ = loadHere(sol, i)
	}
	return headLoad(sol, loads, before).Says
}
