// Package core holds no code of its own. The packages below it are the rules of
// the job, free of HTTP, SQL, files, clocks and randomness without a seed. They
// import each other downward only, in this order: guitar, drill, tempo, listen,
// compare, evenness, progress, routine, simulate.
package core
