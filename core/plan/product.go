package plan

import (
	"slices"
	"strings"

	"kladotex/core/hair"
)

// ProductKey names something that is used up at a head beside hair.
type ProductKey string

// What is used up. Bands, rings and cord are counted; the others are measured out of a jar or a bottle.
const (
	Bands   ProductKey = "bands"
	Rings   ProductKey = "rings"
	Cord    ProductKey = "cord"
	Gel     ProductKey = "gel"
	Wax     ProductKey = "wax"
	Oil     ProductKey = "oil"
	LeaveIn ProductKey = "leave-in"
	FoamSet ProductKey = "foam"
	Glue    ProductKey = "glue"
)

// ProductFacts are what holds for one of them.
type ProductFacts struct {
	Key  ProductKey `json:"key"`
	Name string     `json:"name"`
	// Unit is what it is counted or measured in; Whole tells that packs of it are bought for one head.
	Unit  string `json:"unit" enum:"piece,m,g,ml"`
	Whole bool   `json:"whole" doc:"True where packs are bought for one head; else it is the studio's jar, and its share is paid"`
	// Usual is one as sold, where the plan names no other.
	Usual Thing `json:"usual"`
}

// Products are all of them, in the order they are listed.
var Products = []ProductFacts{
	{Bands, "Thin bands", "piece", true, Thing{Name: "Thin bands", Mass: 0.05, Pack: 200, Price: 300}},
	{Rings, "Rings", "piece", true, Thing{Name: "Rings", Mass: 0.5, Pack: 20, Price: 400}},
	{Cord, "Cord", "m", true, Thing{Name: "Cord", Pack: 25, Price: 500}},
	{Gel, "Firm gel", "g", false, Thing{Name: "Firm gel", Pack: 250, Price: 800}},
	{Wax, "Balm of wax", "g", false, Thing{Name: "Balm of wax", Pack: 100, Price: 900}},
	{Oil, "Scalp oil", "ml", false, Thing{Name: "Scalp oil", Pack: 100, Price: 900}},
	{LeaveIn, "Leave-in", "ml", false, Thing{Name: "Leave-in", Pack: 300, Price: 900}},
	{FoamSet, "Setting foam", "ml", false, Thing{Name: "Setting foam", Pack: 250, Price: 700}},
	{Glue, "Glue", "ml", false, Thing{Name: "Glue", Pack: 20, Price: 500}},
}

// Name is the product as it is spoken of.
func (k ProductKey) Name() string {
	i := slices.IndexFunc(Products, func(p ProductFacts) bool { return p.Key == k })
	if i < 0 {
		return string(k)
	}
	return strings.ToLower(Products[i].Name)
}

// ProductKeys are their keys.
func ProductKeys() []ProductKey {
	out := make([]ProductKey, len(Products))
	for i, p := range Products {
		out[i] = p.Key
	}
	return out
}

// Chosen is a product that the plan takes in place of the usual one.
type Chosen struct {
	Product ProductKey `json:"product"`
	Thing   Thing      `json:"thing"`
}

// UsualFeed is the hair that is fed into ends and cornrows where nothing else is said.
var UsualFeed = hair.Wrapping{Name: "Braiding hair", StrandLength: 1220, Strands: 40, PackMass: 80, Price: 400}
