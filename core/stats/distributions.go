// Package stats has the few distributions and moments that figures rest on. The special
// functions are gonum's; its packages of distributions would bring all of linear algebra
// into the core of the device.
package stats

import (
	"math"

	"gonum.org/v1/gonum/mathext"
)

// NormalSurvival is the chance that a standard normal value exceeds z.
func NormalSurvival(z float64) float64 { return math.Erfc(z/math.Sqrt2) / 2 }

// NormalQuantile is the value that a standard normal one stays below with chance p. It
// panics for a p outside 0 to 1.
func NormalQuantile(p float64) float64 { return mathext.NormalQuantile(p) }

// StudentQuantile is the value that one of Student's distribution with nu degrees of
// freedom stays below with chance p (Abramowitz & Stegun, Handbook of Mathematical
// Functions, 1964, 26.7.1). It panics for a p outside 0 to 1 and for nu ≤ 0.
func StudentQuantile(p, nu float64) float64 {
	x := mathext.InvRegIncBeta(nu/2, 0.5, 2*min(p, 1-p))
	return math.Copysign(math.Sqrt(nu*(1-x)/x), p-0.5)
}

// FSurvival is the chance that the ratio of two estimates of one variance exceeds x, with
// d1 degrees of freedom above and d2 below (the same, 26.6.2). It panics for degrees ≤ 0.
func FSurvival(x, d1, d2 float64) float64 {
	return 1 - mathext.RegIncBeta(d1/2, d2/2, d1*x/(d1*x+d2))
}

// ChiSquaredQuantile is the value that a sum of k squares of standard normal values stays
// below with chance p (the same, 26.4.19). It panics for a p outside 0 to 1 and for k ≤ 0.
func ChiSquaredQuantile(p, k float64) float64 { return 2 * mathext.GammaIncRegInv(k/2, p) }
