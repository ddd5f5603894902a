import { describe, expect, it } from 'vitest';
import { searchQuery } from './search';

describe('what is asked of the text index', () => {
  it.each([
    ['', ''],
    [' , ', ''],
    ['open Dom', "'open' & 'dom':*"],
    ['cafe\u0301', "'caf\u00e9':*"],
    ['天文台', "'天文' & '文台'"],
    ['夜', "'夜'"],
    ["it's | & !x:*", "'it' & 's' & 'x':*"],
    ['星 open', "'open':* & '星'"],
  ])('%s', (words, query) => expect(searchQuery(words)).toBe(query));
  it('at most eight things', () => expect(searchQuery('a b c d e f g h i j').split(' & ')).toHaveLength(8));
});
