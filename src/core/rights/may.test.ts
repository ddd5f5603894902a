import { describe, expect, it } from 'vitest';
import { may, RIGHTS, ROLES, type Deed } from './may';

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
    ['changePosts', ['manager', 'maker', 'reviewer']],
  ] as const)('%s: %s', (deed, roles) => {
    const brandId = RIGHTS[deed].of === 'brand' ? 'moor' : null;
    const allowed = ROLES.filter((role) => may({ role, brandIds: ['moor'] }, deed, { brandId }).ok);
    expect(allowed).toEqual(roles);
  });

  it('says who may instead', () => {
    const asked = may({ role: 'maker', brandIds: ['moor'] }, 'signOff', { brandId: 'moor' });
    expect(asked).toMatchObject({
      refusal: { code: 'notYours', message: 'Only a manager or a reviewer signs off. Ask one, or work as one.' },
    });
  });

  it('says whose it is, of another brand', () => {
    expect(may({ role: 'manager', brandIds: ['ferry'] }, 'signOff', { brandId: 'moor' })).toEqual({
      ok: false,
      refusal: {
        code: 'notYours',
        message: 'This belongs to a brand you do not work for. Switch to somebody who does.',
      },
    });
  });

  it('nothing of a brand may be done of no brand', () => {
    expect(may({ role: 'manager', brandIds: ['moor'] }, 'look', { brandId: null }).ok).toBe(false);
  });
});
