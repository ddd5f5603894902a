import { expect, it } from 'vitest';
import { SHIPPED_RULE_SHEETS } from '../rulesheets/shipped';
import { answers, carries, DELIVERS } from './carrier';

it('Bimlo delivers where the rules say so, the network answers, and the brand wants it', () => {
  const automatic = SHIPPED_RULE_SHEETS.find((sheet) => sheet.automatic)!;
  const byHand = SHIPPED_RULE_SHEETS.find((sheet) => !sheet.automatic)!;
  expect([answers(automatic.slug), answers(byHand.slug), answers('copied')]).toEqual([true, false, false]);
  const who = (sheet: { automatic: boolean; slug: string }) => DELIVERS.filter((delivers) => carries(sheet, delivers));
  expect(who(automatic)).toEqual(['practice', 'networks']);
  expect(who({ ...automatic, automatic: false })).toEqual([]);
  expect(who({ automatic: true, slug: 'copied' })).toEqual([]);
});
