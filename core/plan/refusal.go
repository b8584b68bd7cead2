package plan

import (
	"fmt"

	"kladotex/core/advice"
	"kladotex/core/hair"
	"kladotex/core/invalid"
)

// EdgeStrip is how wide tender edges are left out, mm: baby hair and the first fine row of it. Common
// practice, no source.
const EdgeStrip = 8.0

// Refusal is why a plan is not carried out as it is, with plans that may be.
type Refusal struct {
	Code     advice.Code `json:"code" enum:"bare-edges"`
	Reason   string      `json:"reason"`
	Remedies []Remedy    `json:"remedies"`
}

// Refusals are what keeps a plan from being quoted, booked or brought to the chair: nothing hangs on edges
// where no hair is left. None for most plans.
func (in Input) Refusals() []Refusal {
	out := []Refusal{}
	if in.Hair.Edges == hair.BareEdges && in.Parting.Edges == 0 {
		free := in
		free.Parting.Edges = EdgeStrip
		behind := in
		behind.Parting.Edges = 2 * EdgeStrip
		out = append(out, Refusal{
			Code:   advice.BareEdges,
			Reason: "The edges are bare, and the first row begins at the hairline: nothing hangs there, not even lightly. What is left of the hair would go too. Where it is new, ask a clinician.",
			Remedies: []Remedy{
				{fmt.Sprintf("Leave a strip of %s out all round", invalid.Length(EdgeStrip)), free},
				{fmt.Sprintf("Leave a strip of %s out all round", invalid.Length(2*EdgeStrip)), behind},
			},
		})
	}
	return out
}

// refused are the refusals as notices, which stand before all others.
func (in Input) refused() []advice.Notice {
	var out []advice.Notice
	for _, r := range in.Refusals() {
		out = append(out, advice.Notice{Code: r.Code, Severity: advice.Danger, Reason: r.Reason, Remedy: r.Remedies[0].Says + ".", About: []string{}})
	}
	return out
}
