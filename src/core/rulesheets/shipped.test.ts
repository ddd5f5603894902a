import { AS_IT_IS, type PictureMeasures } from '../media/fit';
import { describe, expect, it } from 'vitest';
import { blocksOf } from '../posts/readiness';
import { SHIPPED_RULE_SHEETS } from './shipped';
import { fieldRule, formatRule, FORMATS } from './types';

describe('the shipped rule sheets', () => {
  it('are nine, each with a name of its own', () => {
    expect(SHIPPED_RULE_SHEETS.map(({ name }) => name)).toEqual([
      'Glassrow',
      'Tallclip',
      'Benchfeed',
      'Pithline',
      'Corkwall',
      'Hourlight',
      'Lettermill',
      'Inkfold',
      'Homestoop',
    ]);
    expect(new Set(SHIPPED_RULE_SHEETS.map(({ slug }) => slug)).size).toBe(9);
  });

  it('leave only Homestoop to be posted by hand', () =>
    expect(SHIPPED_RULE_SHEETS.filter(({ automatic }) => !automatic).map(({ name }) => name)).toEqual(['Homestoop']));

  it('all differ in their limits', () => {
    const figures = SHIPPED_RULE_SHEETS.map((sheet) =>
      JSON.stringify([sheet.fields.map(({ limit }) => limit), sheet.hashtagLimit]),
    );
    expect(new Set(figures).size).toBe(9);
  });

  it.each(SHIPPED_RULE_SHEETS.map((sheet) => [sheet.name, sheet] as const))('%s makes sense', (_name, sheet) => {
    expect(sheet.slug).toMatch(/^[a-z-]+$/);
    expect(fieldRule(sheet, 'caption')).toBeDefined();
    expect(sheet.formats.length).toBeGreaterThan(0);
    for (const { format, picturesMin, picturesMax } of sheet.formats) {
      expect(FORMATS).toContain(format);
      expect(picturesMin).toBeLessThanOrEqual(picturesMax);
    }
    for (const { limit, fold, parts } of sheet.fields) {
      expect(limit).toBeGreaterThan(fold?.units ?? 0);
      expect(parts[0]).toBe('text');
    }
    expect(sheet.pictureMaxBytes).toBeGreaterThan(1_000_000);
  });

  it.each(SHIPPED_RULE_SHEETS.map((sheet) => [sheet.name, sheet] as const))(
    '%s takes a plain post in its first format',
    (_name, sheet) => {
      const { format, picturesMin, shapes, video } = sheet.formats[0]!;
      const width = Math.round(1_500 * (shapes?.narrowest ?? 1));
      const pictures: PictureMeasures[] = Array.from({ length: picturesMin }, () => ({
        mime: 'image/jpeg',
        bytes: 100_000,
        width,
        height: 1_500,
        ...AS_IT_IS,
      }));
      if (video)
        pictures.push({
          mime: 'video/mp4',
          bytes: 1_000_000,
          width: Math.round(1_500 * (video.shapes?.narrowest ?? 1)),
          height: 1_500,
          durationMs: video.secondsMin * 1_000,
          ...AS_IT_IS,
        });
      expect(
        blocksOf(
          { headline: 'Rings', caption: 'The rings are thin.', hashtags: '', link: '', format, pictures },
          sheet,
        ),
      ).toEqual([]);
    },
  );

  it('know the story of the first example: 320 weighted units, links 31, wide characters 2', () => {
    const pithline = SHIPPED_RULE_SHEETS.find(({ slug }) => slug === 'pithline')!;
    expect(fieldRule(pithline, 'caption')).toMatchObject({ limit: 320, linkLength: 31, wideWeight: 2 });
    expect(fieldRule(pithline, 'headline')).toBeUndefined();
    expect(formatRule(pithline, 'newsletter')).toBeUndefined();
  });
});
