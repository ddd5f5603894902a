/** Orders texts by their code units, which for ISO dates and 24-hour times is the order of time; for `sort`. */
export const compareText = (a: string, b: string): number => (a < b ? -1 : a > b ? 1 : 0);
