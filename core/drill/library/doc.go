// Package library holds the drills that ship: the families of the bench, each with a drill
// to start from, and the ready-made sets.
package library
