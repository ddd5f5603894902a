/** The two ways in which a text without times is read. */
export const READ_AS = ['markdown', 'plain'] as const;
export type ReadAs = (typeof READ_AS)[number];
