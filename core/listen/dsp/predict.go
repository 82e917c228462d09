package dsp

import (
	"math"
	"slices"
)

// Burg returns the coefficients a[0..order) that predict x[n] as Σ a[k]·x[n−1−k],
// by the method of Burg (1967). One pass makes the errors of an order and what
// the next is found from.
func Burg(x []float64, order int) []float64 {
	ahead, back := slices.Clone(x[1:]), slices.Clone(x[:len(x)-1]) // errors of foretelling a sample, and the one before those it is foretold from
	a, spare := make([]float64, order), make([]float64, order)
	k := reflection(ahead, back)
	for m := range order {
		for i, v := range a[:m] {
			spare[i] = v - k*a[m-1-i]
		}
		spare[m] = k
		a, spare = spare, a
		ahead, back, k = reflected(ahead, back, k)
	}
	return a
}

// reflection is Burg's coefficient of the next order.
func reflection(ahead, back []float64) float64 {
	num, den := 0.0, LeastPower
	for i, f := range ahead {
		num += f * back[i]
		den += f*f + back[i]*back[i]
	}
	return 2 * num / den
}

// reflected changes the errors to those of the next order, and returns them with
// the coefficient of the one after.
func reflected(ahead, back []float64, k float64) ([]float64, []float64, float64) {
	back = back[:len(ahead)]
	num, den := 0.0, LeastPower
	b := back[0] - k*ahead[0]
	back[0] = b
	for i := 1; i < len(ahead); i++ {
		f := ahead[i] - k*back[i]
		num += f * b
		den += f*f + b*b
		b = back[i] - k*ahead[i]
		ahead[i], back[i] = f, b
	}
	return ahead[1:], back[:len(back)-1], 2 * num / den
}

// Innovation returns what a prediction leaves unexplained of x, from the sample
// after the first len(a) on.
func Innovation(a, x []float64) []float64 {
	e := make([]float64, len(x)-len(a))
	for i := range e {
		v := x[i+len(a)]
		for k, c := range a {
			v -= c * x[i+len(a)-1-k]
		}
		e[i] = v
	}
	return e
}

// ChangePoint splits x where two variances, one before and one after, explain
// it best. It also returns by how much they do so better than one, in twice the
// logarithm of the likelihood.
func ChangePoint(x []float64) (at int, gain float64) {
	const edge = 8
	total := SumSquares(x)
	floor := 1e-12 + 1e-9*total
	one := float64(len(x)) * math.Log(total/float64(len(x))+floor)
	best, left := one, 0.0
	for i := range x {
		if i >= edge && i < len(x)-edge {
			n, m := float64(i), float64(len(x)-i)
			if cost := n*math.Log(left/n+floor) + m*math.Log((total-left)/m+floor); cost < best {
				best, at = cost, i
			}
		}
		left += x[i] * x[i]
	}
	return at, one - best
}

// lagGrain is by how much Lag thins a sound to find about where to look.
const lagGrain = 3

// Lag is by how many samples x must be moved, from least to most, to be most like itself,
// and how like: 1 for what repeats itself, sample by sample. It looks among the lower
// partials first, and then at each sample about there.
func Lag(x []float64, least, most int) (lag int, alike float64) {
	near, _ := likest(Thinned(x, lagGrain), least/lagGrain, most/lagGrain)
	return likest(x, max(least, (near-1)*lagGrain), min(most, (near+1)*lagGrain))
}

// nearlyAlike is how much less like itself than at any other lag a sound is at its period at
// the most.
const nearlyAlike = 0.05

// Period is the shortest lag, from least to most samples, at which x is nearly as like itself
// as at any, and how like: what repeats itself does so again after two periods, and what two
// sounds have in common may be after ten of one and nine of the other.
func Period(x []float64, least, most int) (lag int, alike float64) {
	thin := Thinned(x, lagGrain)
	sums := powerUpTo(thin)
	from, to := max(1, least/lagGrain), min(most/lagGrain, len(thin)-1)
	likes, best := make([]float64, max(0, to-from+1)), 0.0
	for i := range likes {
		likes[i] = likeness(thin, sums, from+i)
		best = max(best, likes[i])
	}
	for i := 1; i+1 < len(likes); i++ {
		if c := likes[i]; c > best-nearlyAlike && c >= likes[i-1] && c >= likes[i+1] {
			return likest(x, (from+i-1)*lagGrain, (from+i+1)*lagGrain)
		}
	}
	return Lag(x, least, most)
}

// likest looks at every lag.
func likest(x []float64, least, most int) (lag int, alike float64) {
	sums := powerUpTo(x)
	for by := max(1, least); by <= min(most, len(x)-1); by++ {
		if c := likeness(x, sums, by); c > alike {
			lag, alike = by, c
		}
	}
	return lag, alike
}

// powerUpTo has, at i, the sum of the squares of the samples before i.
func powerUpTo(x []float64) []float64 {
	sums := make([]float64, len(x)+1)
	for i, v := range x {
		sums[i+1] = sums[i] + v*v
	}
	return sums
}

// likeness is how like itself x, of whose squares the sums are given, is when it is moved by
// so many samples.
func likeness(x, sums []float64, by int) float64 {
	product, before := 0.0, x[:len(x)-by]
	for i, v := range x[by:] {
		product += v * before[i]
	}
	return product / math.Sqrt((sums[len(x)]-sums[by])*sums[len(x)-by]+LeastPower)
}

// Thinned is x with each group of so many samples as their mean.
func Thinned(x []float64, by int) []float64 {
	out := make([]float64, len(x)/by)
	for i := range out {
		for _, v := range x[i*by : (i+1)*by] {
			out[i] += v / float64(by)
		}
	}
	return out
}
