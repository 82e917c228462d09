package drill

import (
	"fmt"
	"slices"

	"manudrill/core/guitar"
)

// Transposed returns the drill some frets up or down the neck: in another key,
// the same for the hand.
func (d Drill) Transposed(frets int) Drill {
	return d.each(func(p Part) Part { return p.transposed(frets) })
}

func (p Part) transposed(frets int) Part {
	p.Path.Position += frets
	if p.Key != nil {
		key := *p.Key
		key.Root, key.Spelled = ((key.Root+frets)%12+12)%12, ""
		p.Key = &key
	}
	return p.carried(frets)
}

// OnStrings returns the drill on other strings, some thicker (+) or thinner.
func (d Drill) OnStrings(thicker int) Drill {
	return d.each(func(p Part) Part { return p.onStrings(thicker) })
}

func (p Part) onStrings(thicker int) Part {
	move := func(strings []int) []int {
		out := slices.Clone(strings)
		for i := range out {
			out[i] += thicker
		}
		return out
	}
	p.Path.Strings = move(p.Path.Strings)
	groups := make([][]int, len(p.Path.Groups))
	for i, g := range p.Path.Groups {
		groups[i] = move(g)
	}
	p.Path.Groups = groups
	if own, ok := p.Pattern.(interface{ onStrings(int) Pattern }); ok {
		p.Pattern = own.onStrings(thicker)
	}
	p.Fingering.Own = slices.Clone(p.Fingering.Own)
	for i := range p.Fingering.Own {
		p.Fingering.Own[i].String += thicker
	}
	return p
}

// A Variety is a way in which a drill can be varied throughout.
type Variety string

// Varieties: the orders of the pattern's fingers (24 of four); the four orders
// of a shape or run; hammer-ons, pull-offs and both; each string alone; and
// every second position from the lowest to the highest.
const (
	ByFingerOrder Variety = "fingerOrders"
	ByOrder       Variety = "orders"
	BySlur        Variety = "slurs"
	ByString      Variety = "strings"
	ByPosition    Variety = "positions"
)

// Varieties returns those that a drill offers; one of several parts offers none.
func (d Drill) Varieties() []Variety {
	out := []Variety{}
	if len(d.Then) > 0 {
		return out
	}
	if _, ok := d.Pattern.(fingered); ok {
		out = append(out, ByFingerOrder)
	}
	if _, ok := d.Pattern.(ordered); ok {
		out = append(out, ByOrder)
	}
	if _, ok := d.Pattern.(slurring); ok {
		out = append(out, BySlur)
	}
	if len(d.Path.Strings) > 1 {
		out = append(out, ByString)
	}
	return append(out, ByPosition)
}

// fingered, ordered and slurring are patterns that can be varied in this way.
type (
	fingered interface {
		firstOrder() []int
		withOrders([][]int) Pattern
	}
	ordered  interface{ withOrder(Order) Pattern }
	slurring interface{ withSlur(Slur) Pattern }
)

func (p FingerPerFret) firstOrder() []int            { return p.Orders[0] }
func (p FingerPerFret) withOrders(o [][]int) Pattern { return FingerPerFret{o} }
func (p Diagonal) firstOrder() []int                 { return p.Orders[0] }
func (p Diagonal) withOrders(o [][]int) Pattern      { return Diagonal{o} }
func (p StringPair) firstOrder() []int               { return p.Orders[0] }
func (p StringPair) withOrders(o [][]int) Pattern    { return StringPair{o} }

func (p ScaleRun) withOrder(o Order) Pattern       { p.Order = o; return p }
func (p MixedRun) withOrder(o Order) Pattern       { p.Order = o; return p }
func (p SkipArpeggio) withOrder(o Order) Pattern   { p.Order = o; return p }
func (p Triad) withOrder(o Order) Pattern          { p.Order = o; return p }
func (p TwoStringShape) withOrder(o Order) Pattern { p.Order = o; return p }

func (p SkipArpeggio) onStrings(thicker int) Pattern {
	if p.ExtraAt != nil {
		at := *p.ExtraAt
		at.String += thicker
		p.ExtraAt = &at
	}
	return p
}

func (p SlurCombinations) withSlur(s Slur) Pattern { p.Slur = s; return p }

// Variations returns all variations of d of one kind that can be played on g.
// The drill itself must be playable.
func (d Drill) Variations(g guitar.Guitar, by Variety) ([]Drill, error) {
	all, err := d.vary(g, by)
	if err != nil {
		return nil, err
	}
	all = slices.DeleteFunc(all, func(v Drill) bool { return len(v.Check(g)) > 0 })
	return all, nil
}

func (d Drill) vary(g guitar.Guitar, by Variety) ([]Drill, error) {
	if !slices.Contains(d.Varieties(), by) {
		return nil, fmt.Errorf("this drill cannot be varied by %q", by)
	}
	var out []Drill
	add := func(name string, change func(*Drill)) {
		v := d
		v.Name += ", " + name
		change(&v)
		out = append(out, v)
	}
	switch by {
	case ByFingerOrder:
		p := d.Pattern.(fingered)
		for _, o := range permutations(p.firstOrder()) {
			add(Dashed(o), func(v *Drill) { v.Pattern = p.withOrders([][]int{o}) })
		}
	case ByOrder:
		for _, o := range Orders {
			add(string(o), func(v *Drill) { v.Pattern = d.Pattern.(ordered).withOrder(o) })
		}
	case BySlur:
		for _, s := range []struct {
			slur Slur
			name string
		}{{HammerOns, "hammer-ons"}, {PullOffs, "pull-offs"}, {BothSlurs, "hammer-ons and pull-offs"}} {
			add(s.name, func(v *Drill) { v.Pattern = d.Pattern.(slurring).withSlur(s.slur) })
		}
	case ByString:
		for i, s := range d.Path.Strings {
			add(fmt.Sprintf("from string %d", s), func(v *Drill) { v.Path = d.onlyFrom(i) })
		}
	case ByPosition:
		for p := 1; p <= g.TopFret(); p += 2 {
			add(fmt.Sprintf("position %d", p), func(v *Drill) { *v = v.Transposed(p - d.Path.Position) })
		}
	}
	return out, nil
}

// onlyFrom keeps as many strings as one cell needs, from the i-th; the check of
// the drill throws out those that are too few.
func (d Drill) onlyFrom(i int) Path {
	p := d.Path
	cells, err := d.Pattern.Cells(p)
	if err != nil {
		return p
	}
	p.Spread, p.Groups = Neighbours, nil
	p.Strings = p.Strings[i:min(len(p.Strings), i+stringsOf(cells))]
	return p
}

// permutations returns all orders of some fingers.
func permutations(of []int) [][]int {
	sorted := slices.Sorted(slices.Values(of))
	var out [][]int
	for _, o := range FingerOrders() {
		kept := slices.DeleteFunc(o, func(f int) bool { return !slices.Contains(sorted, f) })
		if !slices.ContainsFunc(out, func(p []int) bool { return slices.Equal(p, kept) }) {
			out = append(out, kept)
		}
	}
	return out
}
