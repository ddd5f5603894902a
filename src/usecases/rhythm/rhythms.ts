import { readRhythm, type DaySpan, type RhythmEntry } from '@/core/rhythm/entry';
import { refuse, type Result } from '@/core/refusal';
import { readDate } from '@/core/time/plan';
import { maybeChannel } from '@/data/brands/channels';
import { replacePauses, replaceRhythm } from '@/data/rhythm/rhythms';
import { existsTheme } from '@/data/brands/themes';
import { mustMay } from '../rights/mustMay';
import { undoably } from '../undo/undoably';
import { takeSetting } from '../brands/takeSetting';
import { doing, must, notFound, refused, type Doing, type Work } from '../useCase';

/** Pauses a channel may have. */
const PAUSE_LIMIT = 50;

/** Sets the whole rhythm of a channel: what it shall publish and when, and the spans in which it rests. */
export function setRhythm(
  work: Work,
  channelId: string,
  entries: readonly Omit<RhythmEntry, 'id'>[],
  pauses: readonly (DaySpan & { name: string })[],
): Promise<Result<true>> {
  return doing(work, async (act) => {
    const channel = await maybeChannel(act.tx, channelId);
    if (!channel) refused(notFound('channel'));
    await mustMay(act, 'setRhythm', channel.brandId);
    const whole = must(readRhythm(entries.map((entry) => ({ ...entry, theme: entry.theme.trim(), id: act.ids() }))));
    for (const entry of whole) await mustBePillar(act, channel.brandId, entry.pillarId);
    must(readSpans(pauses, 'pauses'));
    await takeSetting(act, 'rhythm', channelId);
    const label = `Set the rhythm of ${channel.name}`;
    await undoably(act, { brandId: channel.brandId, label, things: [{ name: 'rhythm', id: channelId }] }, async () => {
      await replaceRhythm(act.tx, channel, whole);
      await replacePauses(act.tx, channel, pauses);
    });
    await act.note({
      brandId: channel.brandId,
      subject: 'channel',
      subjectId: channelId,
      deed: 'rhythm set',
      detail: { entries: whole.length, pauses: pauses.length },
    });
    return true as const;
  });
}

async function mustBePillar(act: Doing, brandId: string, pillarId: string | null): Promise<void> {
  if (pillarId !== null && !(await existsTheme(act.tx, 'pillars', brandId, pillarId)))
    refused({ code: 'otherBrand', field: 'pillarId', message: 'That pillar is not one of this brand.' });
}

/** Checks spans of days: real dates, none that ends before it begins. */
export function readSpans(spans: readonly (DaySpan & { name: string })[], field: string): Result<true> {
  if (spans.length > PAUSE_LIMIT) return refuse('tooMany', `At most ${PAUSE_LIMIT} spans are kept.`, field);
  for (const [index, { from, to, name }] of spans.entries()) {
    for (const date of [from, to]) {
      const read = readDate(date, `${field}[${index}]`);
      if (!read.ok) return read;
    }
    if (to < from) return refuse('backwards', `${name || 'A span'} ends before it begins.`, `${field}[${index}]`);
    if (name.length > 60) return refuse('longName', 'A span’s name has up to 60 letters.', `${field}[${index}]`);
  }
  return { ok: true, value: true };
}
