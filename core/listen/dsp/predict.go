package dsp

import (
	"iter"
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
	return 2 * dot(ahead, back) / (LeastPower + SumSquares(ahead) + SumSquares(back))
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
	whole := nearTo(total/float64(len(x)) + floor)
	one := float64(len(x)) * whole.log
	best, left, before, after := one, 0.0, whole, whole
	for i := range x {
		if i >= edge && i < len(x)-edge {
			n, m := float64(i), float64(len(x)-i)
			b, a := left/n+floor, (total-left)/m+floor
			if n*before.least(b)+m*after.least(a) < best {
				before, after = nearTo(b), nearTo(a)
				if cost := n*before.log + m*after.log; cost < best {
					best, at = cost, i
				}
			}
		}
		left += x[i] * x[i]
	}
	return at, one - best
}

// A near is a value and its logarithm, by which that of another can be bounded without
// taking it.
type near struct{ value, log float64 }

func nearTo(value float64) near { return near{value, math.Log(value)} }

// least is what the logarithm of v is at the least: 1 − 1/y ≤ log y. A little less, for what
// is rounded.
func (n near) least(v float64) float64 { return n.log + 1 - n.value/v - 1e-12 }

// lagGrain is by how much Lag thins a sound to find about where to look.
const lagGrain = 3

// Lag is by how many samples x must be moved, from least to most, to be most like itself,
// and how like: 1 for what repeats itself, sample by sample. It looks among the lower
// partials first, and then at each sample about there.
func Lag(x []float64, least, most int) (lag int, alike float64) {
	near, _ := likest(AppendThinned(nil, x, lagGrain), least/lagGrain, most/lagGrain)
	return likest(x, max(least, (near-1)*lagGrain), min(most, (near+1)*lagGrain))
}

// nearlyAlike is how much less like itself than at any other lag a sound is at its period at
// the most.
const nearlyAlike = 0.05

// Period is the shortest lag, from least to most samples, at which x is nearly as like itself
// as at any, and how like: what repeats itself does so again after two periods, and what two
// sounds have in common may be after ten of one and nine of the other.
func Period(x []float64, least, most int) (lag int, alike float64) {
	thin := AppendThinned(nil, x, lagGrain)
	from, to := max(1, least/lagGrain), min(most/lagGrain, len(thin)-1)
	likes, best := make([]float64, 0, max(0, to-from+1)), 0.0
	for _, c := range likenesses(thin, from, to) {
		likes = append(likes, c)
		best = max(best, c)
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
	for by, c := range likenesses(x, max(1, least), min(most, len(x)-1)) {
		if c > alike {
			lag, alike = by, c
		}
	}
	return lag, alike
}

// likenesses are how like itself x is when it is moved by each number of samples from least,
// 1 or more, to most, fewer than it has.
func likenesses(x []float64, least, most int) iter.Seq2[int, float64] {
	return func(yield func(by int, alike float64) bool) {
		if most < least {
			return
		}
		here, there := SumSquares(x[least:]), SumSquares(x[:len(x)-least]) // the powers of what is beside each other
		for by := least; by <= most; by++ {
			if !yield(by, dot(x[by:], x)/math.Sqrt(max(0, here)*max(0, there)+LeastPower)) {
				return
			}
			first, last := x[by], x[len(x)-1-by]
			here, there = here-first*first, there-last*last
		}
	}
}

// AppendThinned appends x with each group of so many samples as their mean.
func AppendThinned(out, x []float64, by int) []float64 {
	out = slices.Grow(out, len(x)/by)
	for ; len(x) >= by; x = x[by:] {
		sum := 0.0
		for _, v := range x[:by] {
			sum += v
		}
		out = append(out, sum/float64(by))
	}
	return out
}
