// Command words writes docs/words.md: every text that people read, by file, to be read in one go.
package main

import (
	"bufio"
	"fmt"
	"io"
	"log"
	"os"
)

func main() {
	all, _, err := Collect(".")
	if err != nil {
		log.Fatal(err)
	}
	out := bufio.NewWriter(os.Stdout)
	Write(out, all)
	if err := out.Flush(); err != nil {
		log.Fatal(err)
	}
}

// Write writes the list as a page.
func Write(out io.Writer, all []Texts) {
	fmt.Fprintf(out, "# Words\n\nEvery text of the program, by file: screens, papers, messages, refusals and the description of the\ninterface. `make words` writes it. What is put in stands as %%s, {name} or {…}.\n")
	for _, t := range all {
		fmt.Fprintf(out, "\n## %s\n\n", t.File)
		for _, line := range t.Lines {
			fmt.Fprintf(out, "- %s\n", line)
		}
	}
}
