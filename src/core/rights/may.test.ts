import { describe, expect, it } from 'vitest';
import { allowsOf, couldDo, may, RIGHTS, ROLES, type Deed } from './may';

const deeds = Object.keys(RIGHTS) as Deed[];

describe('who may', () => {
  it.each(deeds)('%s: nobody of another brand, where it is a brand’s', (deed) => {
    for (const role of ROLES) {
      const foreign = may({ role, brandIds: ['ferry'] }, deed, { brandId: 'moor' });
      if (RIGHTS[deed].of === 'brand') expect(foreign.ok).toBe(false);
    }
  });

  it.each(deeds)('%s: managers of the brand, and Bimlo itself', (deed) => {
    const brandId = RIGHTS[deed].of === 'brand' ? 'moor' : null;
    expect(may({ role: 'manager', brandIds: ['moor'] }, deed, { brandId }).ok).toBe(true);
    expect(may(null, deed, { brandId }).ok).toBe(true);
  });

  it.each([
    ['signOff', ['manager', 'reviewer']],
    ['waive', ['manager']],
    ['manageBrand', ['manager']],
    ['manageHouse', ['manager']],
    ['look', ['manager', 'maker', 'reviewer']],
    ['keepViews', ['manager', 'maker', 'reviewer']],
    ['changePosts', ['manager', 'maker']],
    ['doSteps', ['manager', 'maker']],
    ['send', ['manager']],
    ['exchange', ['manager']],
    ['setRhythm', ['manager']],
    ['keepKnownDates', ['manager']],
  ] as const)('%s: %s', (deed, roles) => {
    const brandId = RIGHTS[deed].of === 'brand' ? 'moor' : null;
    const allowed = ROLES.filter((role) => may({ role, brandIds: ['moor'] }, deed, { brandId }).ok);
    expect(allowed).toEqual(roles);
  });

  it.each(deeds)('%s: a role could do what it may of some brand', (deed) => {
    for (const role of ROLES) {
      const isAllowed = may({ role, brandIds: ['moor'] }, deed, { brandId: 'moor', allows: ['send', 'exchange'] }).ok;
      expect(couldDo(role, deed)).toBe(isAllowed);
    }
  });

  it('says who may instead', () => {
    const asked = may({ role: 'maker', brandIds: ['moor'] }, 'signOff', { brandId: 'moor' });
    expect(asked).toMatchObject({
      refusal: { code: 'notYours', message: 'Only a manager or a reviewer signs off.' },
    });
  });

  it('says whose it is, of another brand', () => {
    expect(may({ role: 'manager', brandIds: ['ferry'] }, 'signOff', { brandId: 'moor' })).toEqual({
      ok: false,
      refusal: {
        code: 'notYours',
        message: 'This belongs to a brand you do not work for.',
      },
    });
  });

  it('nothing of a brand may be done of no brand', () => {
    expect(may({ role: 'manager', brandIds: ['moor'] }, 'look', { brandId: null }).ok).toBe(false);
  });

  it.each([
    ['send', 'send'],
    ['exchange', 'exchange'],
  ] as const)('%s: makers too where their brand allows it, of that brand, and never reviewers', (deed, allowance) => {
    const ask = (role: 'maker' | 'reviewer', brandId: string, allows: ('send' | 'exchange')[]) =>
      may({ role, brandIds: ['moor'] }, deed, { brandId, allows }).ok;
    expect([ask('maker', 'moor', [allowance]), ask('maker', 'moor', []), ask('maker', 'ferry', [allowance])]).toEqual([
      true,
      false,
      false,
    ]);
    expect([ask('reviewer', 'moor', [allowance]), couldDo('maker', deed), couldDo('reviewer', deed)]).toEqual([
      false,
      true,
      false,
    ]);
  });

  it('makers send unless their brand asks for sign-off or says otherwise, and exchange where it says so', () => {
    const rules = { asksSignOff: false, makersSend: null, makersExchange: false };
    expect(allowsOf(rules)).toEqual(['send']);
    expect(allowsOf({ ...rules, asksSignOff: true })).toEqual([]);
    expect(allowsOf({ ...rules, asksSignOff: true, makersSend: true })).toEqual(['send']);
    expect(allowsOf({ ...rules, makersSend: false, makersExchange: true })).toEqual(['exchange']);
  });
});
