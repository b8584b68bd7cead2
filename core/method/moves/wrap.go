package moves

import "kladotex/core/method/figure"

var wraps = map[ID]func() figure.Figure{}
