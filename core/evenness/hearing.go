package evenness

// AudibleMs returns the smallest irregularity of an interval that the ear
// notices, in ms, for an interval of intervalMs: about 6 ms below 240 ms and
// 2.5 % above (Friberg & Sundberg, J. Acoust. Soc. Am. 98, 1995; from memory).
func AudibleMs(intervalMs float64) float64 {
	return max(6, 0.025*intervalMs)
}

// AudibleDB is the smallest step of level that the ear notices, about 1 dB
// (common practice).
const AudibleDB = 1.0
