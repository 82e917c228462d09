// Package evenness judges how regularly a compared take was played: timing,
// level, and which transition from finger to finger is the weakest.
package evenness
