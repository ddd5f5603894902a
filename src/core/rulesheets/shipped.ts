import type { FormatRule, RuleSheet, TextFieldRule } from './types';

const MB = 1_000_000;
const PHOTO_TYPES = ['image/jpeg', 'image/png', 'image/webp'] as const;

const caption = (rule: Partial<TextFieldRule> & { limit: number }): TextFieldRule => ({
  name: 'caption',
  label: 'Caption',
  required: true,
  unit: 'grapheme',
  wideWeight: 1,
  linkLength: null,
  fold: null,
  parts: ['text', 'link', 'hashtags'],
  ...rule,
});

const headline = (rule: Partial<TextFieldRule> & { limit: number }): TextFieldRule => ({
  ...caption(rule),
  name: 'headline',
  label: 'Title',
  parts: ['text'],
  ...rule,
});

const takes = (
  format: FormatRule['format'],
  picturesMin: number,
  picturesMax: number,
  pictures: Pick<FormatRule, 'shapes' | 'minWidth'> = {},
): FormatRule => ({ format, picturesMin, picturesMax, ...pictures });

const shaped = (narrowest: number, widest: number, minWidth: number) => ({ shapes: { narrowest, widest }, minWidth });

/**
 * The nine rule sheets that come with Bimlo. Networks and figures are made up; people who post elsewhere make a sheet
 * of their own.
 */
export const SHIPPED_RULE_SHEETS: readonly RuleSheet[] = [
  {
    slug: 'glassrow',
    name: 'Glassrow',
    automatic: true,
    about: 'photo feed',
    fields: [caption({ limit: 1800, fold: { units: 110, lines: 3 } })],
    hashtagLimit: 18,
    linksClickable: false,
    formats: [
      takes('photo', 1, 1, shaped(0.75, 1.6, 640)),
      takes('carousel', 2, 12, shaped(0.75, 1.6, 640)),
      takes('story', 1, 1, shaped(0.5, 0.62, 700)),
      takes('live', 0, 1),
    ],
    pictureTypes: PHOTO_TYPES,
    pictureMaxBytes: 12 * MB,
  },
  {
    slug: 'tallclip',
    name: 'Tallclip',
    automatic: true,
    about: 'short vertical video',
    fields: [caption({ limit: 900, unit: 'utf16', fold: { units: 80, lines: 2 } })],
    hashtagLimit: 9,
    linksClickable: false,
    formats: [takes('shortVideo', 0, 1, shaped(0.5, 0.62, 600)), takes('live', 0, 1)],
    pictureTypes: ['image/jpeg', 'image/png'],
    pictureMaxBytes: 6 * MB,
  },
  {
    slug: 'benchfeed',
    name: 'Benchfeed',
    automatic: true,
    about: 'professional feed',
    fields: [caption({ limit: 2600, fold: { units: 190, lines: 4 } })],
    hashtagLimit: 6,
    linksClickable: true,
    formats: [
      takes('text', 0, 4),
      takes('photo', 1, 4, shaped(0.7, 2, 500)),
      takes('carousel', 2, 9, shaped(0.7, 1.3, 500)),
      takes('article', 0, 1),
    ],
    pictureTypes: PHOTO_TYPES,
    pictureMaxBytes: 9 * MB,
  },
  {
    slug: 'pithline',
    name: 'Pithline',
    automatic: true,
    about: 'microblog',
    fields: [caption({ limit: 320, wideWeight: 2, linkLength: 20, fold: { units: 150, lines: null } })],
    hashtagLimit: 7,
    linksClickable: true,
    formats: [takes('text', 0, 3), takes('photo', 1, 3), takes('thread', 0, 3)],
    pictureTypes: [...PHOTO_TYPES, 'image/gif'],
    pictureMaxBytes: 4 * MB,
  },
  {
    slug: 'corkwall',
    name: 'Corkwall',
    automatic: true,
    about: 'image board',
    fields: [
      headline({ limit: 90 }),
      caption({ limit: 420, required: false, fold: { units: 60, lines: 1 }, parts: ['text', 'hashtags'] }),
    ],
    hashtagLimit: 12,
    linksClickable: true,
    formats: [takes('wallImage', 1, 1, shaped(0.6, 0.82, 560))],
    pictureTypes: PHOTO_TYPES,
    pictureMaxBytes: 15 * MB,
  },
  {
    slug: 'hourlight',
    name: 'Hourlight',
    automatic: true,
    about: 'long video',
    fields: [
      headline({ limit: 84, fold: { units: 62, lines: null } }),
      caption({ label: 'Description', limit: 4200, unit: 'codePoint', fold: { units: 170, lines: 3 } }),
    ],
    hashtagLimit: 14,
    linksClickable: true,
    formats: [takes('longVideo', 0, 1, shaped(1.7, 1.85, 1_000)), takes('live', 0, 1)],
    pictureTypes: ['image/jpeg', 'image/png'],
    pictureMaxBytes: 3 * MB,
  },
  {
    slug: 'lettermill',
    name: 'Lettermill',
    automatic: true,
    about: 'newsletter',
    fields: [
      headline({ label: 'Subject', limit: 120, fold: { units: 46, lines: null } }),
      caption({ label: 'Letter', limit: 24_000, parts: ['text', 'link'] }),
    ],
    hashtagLimit: 0,
    linksClickable: true,
    formats: [takes('newsletter', 0, 8)],
    pictureTypes: [...PHOTO_TYPES, 'image/gif'],
    pictureMaxBytes: 2 * MB,
  },
  {
    slug: 'inkfold',
    name: 'Inkfold',
    automatic: true,
    about: 'blog',
    fields: [
      headline({ label: 'Headline', limit: 140 }),
      caption({ label: 'Article', limit: 60_000, parts: ['text', 'link'] }),
    ],
    hashtagLimit: 0,
    linksClickable: true,
    formats: [takes('article', 0, 24)],
    pictureTypes: [...PHOTO_TYPES, 'image/gif'],
    pictureMaxBytes: 8 * MB,
  },
  {
    slug: 'homestoop',
    name: 'Homestoop',
    automatic: false,
    about: 'personal profile',
    fields: [caption({ limit: 5000, fold: { units: 240, lines: 5 } })],
    hashtagLimit: 25,
    linksClickable: true,
    formats: [takes('text', 0, 6), takes('photo', 1, 6), takes('story', 1, 1)],
    pictureTypes: [...PHOTO_TYPES, 'image/gif'],
    pictureMaxBytes: 16 * MB,
  },
];
