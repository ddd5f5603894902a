/** The number at the end of a part of a thread: “ 2/5”; none for one alone. @param index counted from 0 */
export const partNumber = (index: number, count: number): string => (count > 1 ? ` ${index + 1}/${count}` : '');
