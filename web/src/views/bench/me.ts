/** Stands for the instructor's own guitar and hand where somebody's are chosen. */
export const me = 'me'
