// Package follow finds out how a take went by its chart: which note is which, and what the
// player did in between: waited, struck again, corrected, began again, went back, left notes
// out, left off. It is score following with errors, repeats and skips, as Nakamura, Nakamura
// and Sagayama describe it (IEEE/ACM TASLP 24(2), 2016; from memory).
package follow
