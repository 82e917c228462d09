package setup

import "manudrill/core/guitar"

// A Setup is the instrument somebody plays, how far their hand reaches, and
// what an instructor holds for hard.
type Setup struct {
	Guitar     guitar.Guitar `json:"guitar"`
	Hand       guitar.Hand   `json:"hand"`
	Weights    Weights       `json:"weights"`
	LeftHanded bool          `json:"leftHanded"` // the neck is shown mirrored
	School     School        `json:"school,omitzero"`
}

// Usual is what everybody has who has said nothing else.
func Usual() Setup {
	return Setup{Guitar: guitar.Standard(), Hand: guitar.UsualHand(), Weights: UsualWeights()}
}

// Validate says what cannot be in a setup, or nil.
func (s Setup) Validate() error {
	if err := s.Guitar.Validate(); err != nil {
		return err
	}
	if err := s.Hand.Validate(); err != nil {
		return err
	}
	if err := s.Weights.Validate(); err != nil {
		return err
	}
	return s.School.validate()
}
