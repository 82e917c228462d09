package drill

// reviewStretch points out two whole steps on one string, where teachers differ
// on the inner finger, and offers the other fingering.
func (d Drill) reviewStretch(c Chart) (Remark, bool) {
	r := Remark{Check: "stretch"}
	for i := 2; i < len(c.Notes); i++ {
		if wholeSteps(c.Notes[i-2 : i+1]) {
			r.Notes = append(r.Notes, i-1)
		}
	}
	if len(r.Notes) == 0 {
		return r, false
	}
	other := d
	text := "Take the ring finger: 1-3-4"
	other.Fingering.Stretch = ByRing
	if d.Fingering.Stretch == ByRing {
		text = "Take the middle finger: 1-2-4"
		other.Fingering.Stretch = ByMiddle
	}
	r.Text = "Two whole steps lie on one string. The middle finger inside (1-2-4) spares the weaker fingers; the ring finger (1-3-4) opens the hand less at the index."
	r.Mends = []Mend{{text, other}}
	return r, true
}

// wholeSteps reports whether three notes lie two frets apart each, under the
// fretting hand on one string, rising or falling.
func wholeSteps(n []Note) bool {
	if !sameGrip(n[0], n[1]) || !sameGrip(n[1], n[2]) || n[0].String != n[1].String || n[1].String != n[2].String {
		return false
	}
	first, second := n[1].Fret-n[0].Fret, n[2].Fret-n[1].Fret
	return first == second && max(first, -first) == 2
}
