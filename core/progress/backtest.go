package progress

// A Backtest is how often forecasts made in the past of a record held.
type Backtest struct {
	Held int `json:"held"`
	Of   int `json:"of"`
}

// Add adds another up.
func (b Backtest) Add(c Backtest) Backtest { return Backtest{b.Held + c.Held, b.Of + c.Of} }

// Backtest makes, at the end of each week of the record, the forecast of each rung from
// what was known then, and looks whether the rung was passed in its range. A range that
// is not over by the end of the record is left out where the rung was not passed yet.
func (r Record) Backtest() (b Backtest) {
	if len(r.Days) == 0 {
		return b
	}
	end := r.Days[len(r.Days)-1].Date
	for today := Monday(r.Days[0].Date).AddDate(0, 0, 6); today.Before(end); today = today.AddDate(0, 0, 7) {
		then := r.until(today)
		p, silent := then.paceAt(today)
		if silent != "" {
			continue
		}
		for _, goal := range r.Rungs {
			when := r.passed(goal)
			if when != nil && !when.After(today) {
				continue // passed already
			}
			f := then.forecastAt(p, goal, today)
			if !f.Known || when == nil && f.Latest.After(end) {
				continue
			}
			b.Of++
			if when != nil && !when.Before(*f.Earliest) && !when.After(*f.Latest) {
				b.Held++
			}
		}
	}
	return b
}
