package moves

import "kladotex/core/method/figure"

var twists = map[ID]func() figure.Figure{}
