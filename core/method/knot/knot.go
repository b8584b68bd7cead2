// Package knot tells from lines in space whether hair holds: whether a piece comes off when it is pulled, what
// is linked with what, what is knotted. It works on bare lines with their depth and knows nothing of how they
// are drawn, so that it can judge the drawn moves as an outsider.
package knot
