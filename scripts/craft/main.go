// Command craft writes docs/craft.md: every number of the craft with its unit, where it comes
// from and where it is used.
package main

import (
	"bufio"
	"fmt"
	"log"
	"os"
)

func main() {
	table, err := Table(".")
	if err != nil {
		log.Fatal(err)
	}
	out := bufio.NewWriter(os.Stdout)
	if _, err := fmt.Fprint(out, table); err != nil {
		log.Fatal(err)
	}
	if err := out.Flush(); err != nil {
		log.Fatal(err)
	}
}
