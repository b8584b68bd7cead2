package judge

import (
	"fmt"

	"kladotex/core/advice"
	"kladotex/core/craft"
	"kladotex/core/hair"
	"kladotex/core/invalid"
	"kladotex/core/plan"
)

// Refusal is why a plan is not carried out as it is, with plans that may be.
type Refusal struct {
	Code     advice.Code `json:"code" enum:"bare-edges"`
	Reason   string      `json:"reason"`
	Remedies []Remedy    `json:"remedies"`
}

// Refusals are what keeps a plan from being quoted, booked or brought to the chair: nothing hangs on edges
// where no hair is left. None for most plans.
func Refusals(in plan.Input) []Refusal {
	out := []Refusal{}
	if in.Hair.Edges == hair.BareEdges && in.Parting.Edges == 0 {
		free := in
		free.Parting.Edges = craft.EdgeStrip
		behind := in
		behind.Parting.Edges = 2 * craft.EdgeStrip
		out = append(out, Refusal{
			Code:   advice.BareEdges,
			Reason: "The edges are bare, and the first row begins at the hairline: nothing hangs there, not even lightly. What is left of the hair would go too. Where it is new, ask a clinician.",
			Remedies: []Remedy{
				{fmt.Sprintf("Leave a strip of %s out all round", invalid.Length(craft.EdgeStrip)), free},
				{fmt.Sprintf("Leave a strip of %s out all round", invalid.Length(2*craft.EdgeStrip)), behind},
			},
		})
	}
	return out
}

// refused are the refusals as notices, which stand before all others.
func refused(in plan.Input) []advice.Notice {
	var out []advice.Notice
	for _, r := range Refusals(in) {
		out = append(out, advice.Notice{Code: r.Code, Severity: advice.Danger, Reason: r.Reason, Remedy: r.Remedies[0].Says + ".", About: []string{}})
	}
	return out
}
