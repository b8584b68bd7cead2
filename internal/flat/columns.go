package flat

import (
	"bytes"
	"encoding/json"
	"reflect"
	"strconv"
	"strings"
)

// Columned is an answer that is mostly long lists of whole numbers.
type Columned interface{ Columned() }

// Marshal writes a columned answer as JSON: encoding/json takes several times as long for its lists.
func Marshal(v Columned) ([]byte, error) {
	return appendColumns(make([]byte, 0, 96<<10), reflect.ValueOf(v))
}

// appendColumns appends a struct, whose fields all have a name in JSON and are never left
// out, as a JSON object: lists of int and structs by itself, the rest by encoding/json.
func appendColumns(b []byte, v reflect.Value) ([]byte, error) {
	b = append(b, '{')
	for i := range v.NumField() {
		name, _, _ := strings.Cut(v.Type().Field(i).Tag.Get("json"), ",")
		if i > 0 {
			b = append(b, ',')
		}
		b = append(append(append(b, '"'), name...), '"', ':')
		field := v.Field(i)
		var err error
		switch numbers, ok := whole(field); {
		case ok:
			b = appendNumbers(b, numbers)
		case field.CanInterface() && field.Type().Implements(reflect.TypeFor[Columned]()):
			b, err = appendColumns(b, field)
		default:
			var rest bytes.Buffer
			encoder := json.NewEncoder(&rest)
			encoder.SetEscapeHTML(false)
			err = encoder.Encode(field.Interface())
			b = append(b, bytes.TrimSuffix(rest.Bytes(), []byte("\n"))...)
		}
		if err != nil {
			return nil, err
		}
	}
	return append(b, '}'), nil
}

// whole are the numbers of a field that is a list of int.
func whole(field reflect.Value) ([]int, bool) {
	list := reflect.TypeFor[[]int]()
	if !field.Type().ConvertibleTo(list) {
		return nil, false
	}
	return field.Convert(list).Interface().([]int), true
}

func appendNumbers(b []byte, numbers []int) []byte {
	b = append(b, '[')
	for i, n := range numbers {
		if i > 0 {
			b = append(b, ',')
		}
		b = strconv.AppendInt(b, int64(n), 10)
	}
	return append(b, ']')
}
