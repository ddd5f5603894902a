import { readTitle, TEXT_LIMITS } from '@/core/pieces/piece';
import { blocksOf } from '@/core/posts/readiness';
import { mayEdit } from '@/core/stages/moves';
import type { Part } from '@/core/captions/compose';
import { partsOf } from '@/core/posts/parts';
import { WRITTEN_FIELDS, WRITTEN_LABELS, writtenOf, type WrittenField } from '@/core/posts/written';
import { FORMAT_LABELS, formatRule, type Format, type RuleSheet } from '@/core/rulesheets/types';
import type { Result } from '@/core/refusal';
import { worksForBrand } from '@/data/people';
import { existsTheme } from '@/data/themes';
import type { PostChange } from '@/data/posts';
import { changePost, takePostAt } from './posts';
import { keepVersion } from './versions';
import { doing, must, mustFit, refused, type Work } from './work';

/** The fields of a post that are written on its sheet; what is absent stays. */
export interface PostEdit extends Partial<Record<WrittenField, string>> {
  title?: string;
  /** All parts anew, in their order. */
  parts?: readonly Part[];
  /** The texts of single parts, by their id. */
  partTexts?: Record<string, string>;
  format?: Format;
  ownerId?: string;
  pillarId?: string | null;
  campaignId?: string | null;
}

/** What an edit did beside writing. */
export interface EditOutcome {
  /** The post was ready and is not any more: it went back to making. */
  tookBack: boolean;
}

/**
 * Writes fields of a post, based on the version given. A scheduled post keeps leaving as it was copied; a ready post that
 * the network would now refuse goes back to making.
 */
export function editPost(work: Work, id: string, version: number, edit: PostEdit): Promise<Result<EditOutcome>> {
  return doing(work, async (act) => {
    const open = await takePostAt(act, id, version);
    const { post, channel, pictures } = open;
    must(mayEdit(open.facts));
    const { partTexts, ...rest } = edit;
    const change: PostChange = { ...rest };
    if (edit.title !== undefined) change.title = must(readTitle(edit.title));
    for (const field of WRITTEN_FIELDS)
      mustFit(edit[field] ?? '', TEXT_LIMITS[field], fieldLabel(channel.sheet, field), field);
    if (edit.parts || partTexts)
      change.parts = partsAfter(edit.parts ?? partsOf({ ...post, pictures }, channel.sheet), partTexts ?? {}, pictures);
    if (edit.format !== undefined && !formatRule(channel.sheet, edit.format))
      refused({
        code: 'format',
        field: 'format',
        message: `${channel.sheet.name} takes no ${FORMAT_LABELS[edit.format]}. Choose one of: ${channel.sheet.formats.map((rule) => FORMAT_LABELS[rule.format]).join(', ')}.`,
      });
    if (edit.ownerId !== undefined && !(await worksForBrand(act.tx, edit.ownerId, post.brandId)))
      refused({
        code: 'foreignOwner',
        field: 'owner',
        message: 'The owner has to be somebody who works for this brand.',
      });
    for (const [table, themeId] of [
      ['pillars', edit.pillarId],
      ['campaigns', edit.campaignId],
    ] as const)
      if (themeId && !(await existsTheme(act.tx, table, post.brandId, themeId)))
        refused({ code: 'otherBrand', field: table, message: 'That pillar or campaign is not one of this brand.' });
    const tookBack = post.stage === 'ready' && blocksOf({ ...post, ...change, pictures }, channel.sheet).length > 0;
    if (tookBack) change.stage = 'making';
    await changePost(act, open, change, 'edited', { fields: Object.keys(edit) });
    await keepVersion(act, post, writtenOf({ ...post, ...change }));
    return { tookBack };
  });
}

/** What a field is called on a channel with that rule sheet. */
const fieldLabel = (sheet: RuleSheet, field: WrittenField): string =>
  sheet.fields.find(({ name }) => name === field)?.label ?? WRITTEN_LABELS[field];

/** Parts a post keeps at the most. */
const PARTS_OF_POST = 100;

/** The parts with some of their texts written anew. A picture that the post does not have, or that two show, is refused. */
function partsAfter(
  parts: readonly Part[],
  texts: Record<string, string>,
  pictures: readonly { id: string }[],
): readonly Part[] {
  const refuseParts = (message: string): never => refused({ code: 'badParts', field: 'parts', message });
  if (parts.length > PARTS_OF_POST) refuseParts(`A post keeps ${PARTS_OF_POST} parts at most.`);
  if (new Set(parts.map(({ id }) => id)).size < parts.length) refuseParts('A part stands there twice.');
  const shown = parts.flatMap(({ pictureId }) => (pictureId === null ? [] : [pictureId]));
  if (new Set(shown).size < shown.length) refuseParts('Two parts show the same picture.');
  if (!shown.every((id) => pictures.some((picture) => picture.id === id)))
    refuseParts('A part shows a picture that this post does not have.');
  const lost = Object.keys(texts).find((id) => !parts.some((part) => part.id === id));
  if (lost !== undefined) refuseParts('The part that was written was taken away meanwhile.');
  const written = parts.map((part) => ({ ...part, text: texts[part.id] ?? part.text }));
  for (const { id, text } of written) mustFit(text, TEXT_LIMITS.part, 'A part', `part:${id}`);
  return written;
}
