//go:build js && wasm

// Command chair is the fold of package chair for the browser: the same program that the server runs,
// so that a device without a connection comes to the same state.
//
// It offers one function, kladotexChair. It takes a brief as JSON and answers an object with tell,
// which takes events as JSON, and view, which takes a wish as JSON and answers what is shown, as
// JSON too. What cannot be read is answered as an Error.
package main

import (
	"encoding/json"
	"syscall/js"

	"kladotex/core/chair"
)

// install is one install that is followed.
type install struct {
	brief  chair.Brief
	events []chair.Event
}

func main() {
	js.Global().Set("kladotexChair", js.FuncOf(func(_ js.Value, args []js.Value) any {
		var i install
		var err error
		if i.brief, err = chair.Decode([]byte(args[0].String())); err != nil {
			return failed(err)
		}
		return map[string]any{"tell": method(i.tell), "view": method(i.view)}
	}))
	select {} // it answers for as long as the page is open
}

// method is a function of one text.
func method(answer func(text string) (any, error)) js.Func {
	return js.FuncOf(func(_ js.Value, args []js.Value) any {
		out, err := answer(args[0].String())
		if err != nil {
			return failed(err)
		}
		return out
	})
}

func failed(err error) js.Value { return js.Global().Get("Error").New(err.Error()) }

// tell adds events.
func (i *install) tell(text string) (any, error) {
	var more []chair.Event
	if err := json.Unmarshal([]byte(text), &more); err != nil {
		return nil, err
	}
	i.events = append(i.events, more...)
	return nil, nil
}

// view is what is shown.
func (i *install) view(text string) (any, error) {
	var wish chair.Wish
	if err := json.Unmarshal([]byte(text), &wish); err != nil {
		return nil, err
	}
	out, err := json.Marshal(i.brief.Fold(i.events).View(wish))
	return string(out), err
}
