package moves

import "kladotex/core/method/figure"

var braids = map[ID]func() figure.Figure{}
