import { describe, expect, it } from 'vitest';
import { SHIPPED_PREP } from './shipped';
import { countBehindText } from './behindText';

describe('the steps that lie behind a piece once its text is there', () => {
  it('are those up to the recording and what writes it down', () => {
    expect(countBehindText(SHIPPED_PREP['piece:talk'], true)).toBe(4);
    expect(countBehindText(SHIPPED_PREP['piece:episode'], true)).toBe(3);
  });

  it('are those up to the last that writes, of a written one', () => {
    expect(countBehindText(SHIPPED_PREP['piece:article'], false)).toBe(2);
  });

  it('are none where no step makes the text', () => {
    expect(countBehindText([{ title: 'Choose a picture', work: 'picture' }], false)).toBe(0);
    expect(countBehindText([{ title: 'Choose a picture', work: 'picture' }], true)).toBe(0);
    expect(countBehindText([], true)).toBe(0);
  });
});
