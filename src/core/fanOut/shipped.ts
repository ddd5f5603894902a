import type { PieceKind } from '../pieces/kinds';
import type { BrandFanOut, FanOut, FanOutRow, RowSource } from './fanOut';

const ANY: RowSource = { of: 'extracts', kinds: [] };
const QUOTED: RowSource = { of: 'extracts', kinds: ['quote', 'point', 'number', 'question'] };
const WHOLE: RowSource = { of: 'whole' };
const CLIPS: RowSource = { of: 'clips' };

const row = (
  network: FanOutRow['network'],
  format: FanOutRow['format'],
  count: number,
  source: RowSource,
  offset: number,
  gap = 7,
): FanOutRow => ({ network, format, count, source, offset, gap });

/** The fan-outs that come with Bimlo. */
export const SHIPPED_FAN_OUTS: readonly FanOut[] = [
  {
    slug: 'talk',
    name: 'Talk',
    for: 'talk',
    rows: [
      row('longVideo', 'longVideo', 1, WHOLE, 0),
      row('shortVideo', 'shortVideo', 3, CLIPS, 1, 5),
      row('microblog', 'thread', 1, WHOLE, 1),
      row('microblog', 'text', 2, QUOTED, 4, 4),
      row('photoFeed', 'carousel', 1, WHOLE, 2),
      row('photoFeed', 'photo', 1, QUOTED, 9),
      row('professionalFeed', 'text', 2, ANY, 3, 7),
      row('pictureBoard', 'boardPicture', 5, ANY, 3, 7),
      row('newsletter', 'newsletter', 1, WHOLE, 2),
      row('blog', 'article', 1, WHOLE, 6),
      row('personalProfile', 'text', 1, ANY, 4),
    ],
  },
  {
    slug: 'article',
    name: 'Article',
    for: 'article',
    rows: [
      row('blog', 'article', 1, WHOLE, 0),
      row('newsletter', 'newsletter', 1, WHOLE, 1),
      row('microblog', 'thread', 1, WHOLE, 1),
      row('microblog', 'text', 2, QUOTED, 4, 4),
      row('professionalFeed', 'text', 2, ANY, 2, 7),
      row('photoFeed', 'carousel', 1, WHOLE, 3),
      row('pictureBoard', 'boardPicture', 3, ANY, 3, 7),
      row('shortVideo', 'shortVideo', 1, ANY, 5),
      row('personalProfile', 'text', 1, ANY, 4),
    ],
  },
  {
    slug: 'episode',
    name: 'Episode',
    for: 'episode',
    rows: [
      row('shortVideo', 'shortVideo', 2, CLIPS, 0, 4),
      row('microblog', 'text', 3, QUOTED, 0, 3),
      row('photoFeed', 'story', 1, ANY, 0),
      row('photoFeed', 'photo', 1, QUOTED, 3),
      row('professionalFeed', 'text', 1, ANY, 2),
      row('newsletter', 'newsletter', 1, WHOLE, 3),
      row('personalProfile', 'text', 1, ANY, 1),
    ],
  },
  {
    slug: 'photo-set',
    name: 'Photo set',
    for: 'photoSet',
    rows: [
      row('photoFeed', 'carousel', 1, WHOLE, 0),
      row('photoFeed', 'photo', 3, ANY, 3, 4),
      row('pictureBoard', 'boardPicture', 5, ANY, 1, 3),
      row('microblog', 'photo', 2, ANY, 1, 4),
      row('personalProfile', 'photo', 1, ANY, 2),
    ],
  },
  {
    slug: 'message',
    name: 'Message',
    for: 'message',
    rows: [
      row('microblog', 'text', 1, WHOLE, 0),
      row('professionalFeed', 'text', 1, WHOLE, 0),
      row('photoFeed', 'photo', 1, WHOLE, 0),
      row('personalProfile', 'text', 1, WHOLE, 1),
    ],
  },
];

/** Characters from which the text of a message is rather an article. */
const LONG_MESSAGE = 1_500;

/**
 * The slug of the fan-out for the kind a piece is of, the brand's own first; of a message by what its text turned out to be.
 *
 * @param isTimed whether its text carries times: then it was recorded
 */
export function usualFor(
  { kind, sourceText }: { kind: PieceKind; sourceText: string },
  isTimed: boolean,
  fanOuts: readonly BrandFanOut[],
): string {
  const seems = kind !== 'message' ? kind : isTimed ? 'talk' : sourceText.length >= LONG_MESSAGE ? 'article' : kind;
  // What is drawn up by itself needs nobody to begin it.
  const able = fanOuts.filter((one) => one.for === seems && !one.isStanding);
  return (able.find(({ isOwn }) => isOwn) ?? able[0] ?? fanOuts[0]!).slug;
}
