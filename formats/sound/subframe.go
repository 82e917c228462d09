package sound

// fixed are the fixed predictors (RFC 9639, 9.2.5): what is foretold of a sample
// from those before it, the first of them first.
var fixed = [][]int32{{}, {1}, {-1, 2}, {1, -3, 3}, {-1, 4, -6, 4}}

// subframe reads one channel of a frame (9.2).
func (f *flacReader) subframe(out []int32, depth int) error {
	b := f.bits
	b.pos++
	kind := int(b.read(6))
	wasted := 0
	if b.read(1) == 1 {
		wasted = b.unary() + 1
	}
	if depth -= wasted; depth < 1 {
		return f.broken()
	}
	var err error
	switch {
	case kind == 0: // constant
		v := b.signed(depth)
		for i := range out {
			out[i] = v
		}
	case kind == 1: // verbatim
		for i := range out {
			out[i] = b.signed(depth)
		}
	case kind >= 8 && kind <= 12:
		err = f.predicted(out, depth, fixed[kind-8], 0)
	case kind >= 32:
		err = f.linear(out, depth, kind-31)
	default:
		err = f.broken()
	}
	if err == nil && b.over() {
		err = ErrCutOff
	}
	if wasted > 0 {
		for i := range out {
			out[i] <<= wasted
		}
	}
	return err
}

// linear reads a subframe with a predictor of its own (9.2.6).
func (f *flacReader) linear(out []int32, depth, order int) error {
	b := f.bits
	if order > len(out) {
		return f.broken()
	}
	f.warmUp(out[:order], depth)
	precision, shift := int(b.read(4))+1, b.signed(5)
	if precision == 16 || shift < 0 {
		return f.broken()
	}
	var room [32]int32
	weights := room[:order]
	for i := range weights { // they are told for the last sample first
		weights[order-1-i] = b.signed(precision)
	}
	return f.restored(out, weights, uint(shift))
}

// predicted reads a subframe with a fixed predictor.
func (f *flacReader) predicted(out []int32, depth int, weights []int32, shift uint) error {
	if len(weights) > len(out) {
		return f.broken()
	}
	f.warmUp(out[:len(weights)], depth)
	return f.restored(out, weights, shift)
}

// warmUp reads the samples that nothing foretells.
func (f *flacReader) warmUp(out []int32, depth int) {
	for i := range out {
		out[i] = f.bits.signed(depth)
	}
}

// restored reads the residuals and adds what the predictor foretells.
func (f *flacReader) restored(out, weights []int32, shift uint) error {
	if err := f.residuals(out, len(weights)); err != nil {
		return err
	}
	foretell(out, weights, shift)
	return nil
}

// foretell adds to each residual what the samples before it foretell.
func foretell(out, weights []int32, shift uint) {
	order, plain := len(weights), len(out)
	if order > 0 && order <= usualOrder {
		plain = min(plain, usualOrder)
	}
	for i := order; i < plain; i++ {
		sum := int64(0)
		for k, v := range out[i-order : i] {
			sum += int64(weights[k]) * int64(v)
		}
		out[i] += int32(sum >> shift)
	}
	if plain < len(out) {
		foretellUsual(out, weights, shift)
	}
}

// usualOrder is the highest order of predictors that common encoders choose.
const usualOrder = 12

// foretellUsual is foretell after the first usualOrder samples, for predictors up
// to that order, without a loop over it. The last sample is kept at hand, so that
// its multiplication alone is waited for.
func foretellUsual(out, weights []int32, shift uint) {
	var w [usualOrder]int64 // the latest last
	for i, v := range weights {
		w[usualOrder-len(weights)+i] = int64(v)
	}
	last := int64(out[usualOrder-1])
	for i := usualOrder; i < len(out); i++ {
		x := (*[usualOrder]int32)(out[i-usualOrder : i])
		sum := w[8]*int64(x[8]) + w[9]*int64(x[9]) + w[10]*int64(x[10])
		if len(weights) > 4 {
			sum += w[4]*int64(x[4]) + w[5]*int64(x[5]) + w[6]*int64(x[6]) + w[7]*int64(x[7])
		}
		if len(weights) > 8 {
			sum += w[0]*int64(x[0]) + w[1]*int64(x[1]) + w[2]*int64(x[2]) + w[3]*int64(x[3])
		}
		out[i] += int32((sum + w[11]*last) >> (shift & 63))
		last = int64(out[i])
	}
}

// residuals reads what the predictor leaves, in partitions that each have their
// Rice parameter (9.2.7).
func (f *flacReader) residuals(out []int32, order int) error {
	b := f.bits
	method, partitions := b.read(2), 1<<b.read(4)
	width := 4 + int(method)
	size := len(out) / partitions
	if method > 1 || size*partitions != len(out) || size < order {
		return f.broken()
	}
	for at := 0; at < len(out); at += size {
		part := out[max(at, order) : at+size]
		if k := int(b.read(width)); k == 1<<width-1 { // not coded
			depth := int(b.read(5))
			for i := range part {
				part[i] = b.signed(depth)
			}
		} else {
			b.rice(part, k)
		}
		if b.over() {
			return ErrCutOff
		}
	}
	return nil
}
