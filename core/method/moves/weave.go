package moves

import "kladotex/core/method/figure"

var weaves = map[ID]func() figure.Figure{}
