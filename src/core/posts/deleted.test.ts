import { describe, expect, it } from 'vitest';
import { deletedWords } from './deleted';

describe('a post that is deleted', () => {
  it('says what goes with it, and how long it can be brought back', () => {
    const words = (caption: string, pictures: number) => deletedWords({ title: 'Rings', caption, pictures });
    expect(words('', 0)).toBe('Deleted “Rings”. It can be brought back for 30 days, under Settings.');
    expect(words(' 🔭 yes ', 2)).toContain('with its caption of 5 characters and 2 pictures.');
    expect(words('x', 0)).toContain('with its caption of 1 character.');
  });
});
