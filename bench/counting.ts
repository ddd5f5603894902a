import { SHIPPED_RULE_SHEETS } from '@/core/rulesheets/shipped';
import { countText } from '@/core/captions/count';
import { compare, ratioLine, type Line } from './figures';

const PART = 'The rings 🌠 are thin: 土星の環は薄い。 👩‍🚀 says so — #NightSky https://fennelmoor.example/rings éà. ';
/** 2,200 UTF-16 units with emoji and CJK. */
const CAPTION = PART.repeat(40).slice(0, 2_200);
const REPEAT = 50;

/** Counting a caption as Pithline does, against one bare pass of the segmenter over it. */
export async function benchCounting(): Promise<Line[]> {
  const rule = SHIPPED_RULE_SHEETS.find((sheet) => sheet.slug === 'pithline')!.fields[0]!;
  const segmenter = new Intl.Segmenter('und', { granularity: 'grapheme' });
  let kept = 0;
  const { workMs, floorMs } = await compare(
    () => {
      for (let n = 0; n < REPEAT; n++) kept += countText(CAPTION, rule);
    },
    () => {
      for (let n = 0; n < REPEAT; n++) for (const _ of segmenter.segment(CAPTION)) kept++;
    },
  );
  if (kept === 0) throw new Error('nothing was counted');
  return [ratioLine('counting 2,200 characters, to a bare segmenter pass', workMs / REPEAT, floorMs / REPEAT, 2)];
}
