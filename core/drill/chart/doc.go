// Package chart holds a drill written out note by note for one instrument at one tempo:
// all that hearing, comparing and judging a take need to know of it.
package chart
