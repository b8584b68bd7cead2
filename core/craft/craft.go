// Package craft is what we believe: every number of the craft, such as a rate, a mass or the
// weeks of wear, under a name, with its unit and where it comes from.
//
// Each constant says in a comment what it is and, behind its value, its unit and its origin:
// "common practice" for what is seen at work and nobody published, "memory" for a source cited
// without having it at hand, "published" or "standard" for one that was read. docs/craft.md is
// the same as a table, with where every number is used, for a practitioner to argue with;
// `make craft` writes it. Numbers of one method alone, such as the weeks it is worn, stand with the
// method in its catalogue and in that table.
package craft
