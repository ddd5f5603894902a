import type { FormatRule, PartsRule, RuleSheet, TextFieldRule, VideoRule } from './types';

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

/** A text of some formats only, which may be left out. */
const extra = (name: TextFieldRule['name'], label: string, formats: TextFieldRule['formats'], limit: number) => ({
  ...caption({ limit }),
  name,
  label,
  required: false,
  parts: ['text'] as const,
  formats,
});

const slides = (most: number, limit: number): PartsRule => ({ label: 'slide', most, limit, needs: 'picture' });
const frames = (most: number, limit: number): PartsRule => ({ label: 'frame', most, limit, needs: 'picture' });

const video = (
  secondsMin: number,
  secondsMax: number,
  maxMB: number,
  [narrowest, widest]: [number, number],
): VideoRule => ({
  secondsMin,
  secondsMax,
  maxBytes: maxMB * MB,
  shapes: { narrowest, widest },
});

const takes = (
  format: FormatRule['format'],
  picturesMin: number,
  picturesMax: number,
  more: Pick<FormatRule, 'shapes' | 'minWidth' | 'parts' | 'video'> = {},
): FormatRule => ({ format, picturesMin, picturesMax, ...more });

const shaped = (narrowest: number, widest: number, minWidth: number) => ({ shapes: { narrowest, widest }, minWidth });

/**
 * The nine rule sheets that come with Bimlo. Networks and figures are made up; people who post elsewhere make a sheet
 * of their own.
 */
export const SHIPPED_RULE_SHEETS: readonly RuleSheet[] = [
  {
    slug: 'glassrow',
    name: 'Glassrow',
    kind: 'photoFeed',
    automatic: true,
    about: 'photo feed',
    fields: [
      caption({ limit: 1800, fold: { units: 110, lines: 3 } }),
      extra('firstComment', 'First comment', ['photo', 'carousel'], 1_100),
    ],
    hashtagLimit: 18,
    linksClickable: false,
    formats: [
      takes('photo', 1, 1, shaped(0.7, 1.6, 640)),
      takes('carousel', 2, 12, { ...shaped(0.7, 1.6, 640), parts: slides(12, 140) }),
      takes('story', 1, 5, { ...shaped(0.5, 0.62, 700), parts: frames(5, 90) }),
      takes('live', 0, 1),
    ],
    pictureTypes: PHOTO_TYPES,
    pictureMaxBytes: 12 * MB,
  },
  {
    slug: 'tallclip',
    name: 'Tallclip',
    kind: 'shortVideo',
    automatic: true,
    about: 'short vertical video',
    fields: [
      caption({ limit: 900, unit: 'codePoint', fold: { units: 80, lines: 2 } }),
      extra('firstComment', 'First comment', ['shortVideo'], 500),
    ],
    hashtagLimit: 9,
    linksClickable: false,
    formats: [
      takes('shortVideo', 0, 1, { ...shaped(0.5, 0.62, 500), video: video(7, 130, 410, [0.5, 0.62]) }),
      takes('live', 0, 1),
    ],
    pictureTypes: ['image/jpeg', 'image/png'],
    pictureMaxBytes: 6 * MB,
  },
  {
    slug: 'benchfeed',
    name: 'Benchfeed',
    kind: 'professionalFeed',
    automatic: true,
    about: 'professional feed',
    fields: [
      { ...headline({ label: 'Headline', limit: 130 }), formats: ['article'] },
      caption({ limit: 2330, fold: { units: 190, lines: 4 } }),
      extra('firstComment', 'First comment', ['text', 'photo', 'carousel'], 930),
    ],
    hashtagLimit: 6,
    linksClickable: true,
    formats: [
      takes('text', 0, 4),
      takes('photo', 1, 4, shaped(0.7, 2, 500)),
      takes('carousel', 2, 11, { ...shaped(0.7, 1.3, 500), parts: slides(11, 170) }),
      takes('article', 0, 1),
    ],
    pictureTypes: PHOTO_TYPES,
    pictureMaxBytes: 9 * MB,
  },
  {
    slug: 'pithline',
    name: 'Pithline',
    kind: 'microblog',
    automatic: true,
    about: 'microblog',
    fields: [caption({ limit: 320, wideWeight: 2, linkLength: 31, fold: { units: 150, lines: null } })],
    hashtagLimit: 7,
    linksClickable: true,
    formats: [
      takes('text', 0, 3),
      takes('photo', 1, 3),
      takes('thread', 0, 12, { parts: { label: 'part', most: 17, limit: 320, needs: 'text' } }),
    ],
    pictureTypes: [...PHOTO_TYPES, 'image/gif'],
    pictureMaxBytes: 4 * MB,
  },
  {
    slug: 'corkwall',
    name: 'Corkwall',
    kind: 'pictureBoard',
    automatic: true,
    about: 'picture board',
    fields: [
      headline({ limit: 76 }),
      caption({ limit: 360, required: false, fold: { units: 44, lines: 1 }, parts: ['text', 'hashtags'] }),
    ],
    hashtagLimit: 12,
    linksClickable: true,
    formats: [takes('boardPicture', 1, 1, shaped(0.6, 0.82, 560))],
    pictureTypes: PHOTO_TYPES,
    pictureMaxBytes: 15 * MB,
  },
  {
    slug: 'hourlight',
    name: 'Hourlight',
    kind: 'longVideo',
    automatic: true,
    about: 'long video',
    fields: [
      headline({ limit: 77, fold: { units: 62, lines: null } }),
      caption({ label: 'Description', limit: 3400, unit: 'codePoint', fold: { units: 170, lines: 3 } }),
      extra('keywords', 'Keywords', ['longVideo'], 330),
    ],
    hashtagLimit: 11,
    linksClickable: true,
    formats: [
      takes('longVideo', 0, 1, { ...shaped(1.7, 1.85, 1_000), video: video(30, 9_000, 950, [1.3, 2.4]) }),
      takes('live', 0, 1),
    ],
    pictureTypes: ['image/jpeg', 'image/png'],
    pictureMaxBytes: 3 * MB,
  },
  {
    slug: 'lettermill',
    name: 'Lettermill',
    kind: 'newsletter',
    automatic: true,
    about: 'newsletter',
    fields: [
      headline({ label: 'Subject', limit: 120, fold: { units: 46, lines: null } }),
      extra('preheader', 'Preheader', ['newsletter'], 115),
      caption({ label: 'Letter', limit: 24_000, parts: ['text', 'link'], rich: true }),
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
    kind: 'blog',
    automatic: true,
    about: 'blog',
    fields: [
      headline({ label: 'Headline', limit: 118 }),
      caption({ label: 'Article', limit: 60_000, parts: ['text', 'link'], rich: true }),
      extra('keywords', 'Keywords', ['article'], 300),
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
    kind: 'personalProfile',
    automatic: false,
    about: 'personal profile',
    fields: [caption({ limit: 3700, fold: { units: 240, lines: 5 } })],
    hashtagLimit: 25,
    linksClickable: true,
    formats: [takes('text', 0, 6), takes('photo', 1, 6), takes('story', 1, 4, { parts: frames(4, 110) })],
    pictureTypes: [...PHOTO_TYPES, 'image/gif'],
    pictureMaxBytes: 16 * MB,
  },
];
