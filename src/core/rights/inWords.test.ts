import { expect, it } from 'vitest';
import { rightsInWords } from './inWords';

it('the table of rights tells who may what, for makers as the brand says', () => {
  const told = (allows: ('send' | 'exchange')[]) =>
    rightsInWords(allows).map(
      ({ who: { manager, maker, reviewer }, isSet }) =>
        [manager, maker, reviewer].map((may) => (may ? 'y' : 'n')).join('') + (isSet ? ' set' : ''),
    );
  expect(told([])).toEqual(['yyy', 'yyn', 'ynn set', 'yny', 'ynn', 'ynn set', 'ynn']);
  expect(told(['send', 'exchange'])).toEqual(['yyy', 'yyn', 'yyn set', 'yny', 'ynn', 'yyn set', 'ynn']);
});
