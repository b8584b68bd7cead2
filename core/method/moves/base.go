package moves

import "kladotex/core/method/figure"

var bases = map[ID]func() figure.Figure{}
