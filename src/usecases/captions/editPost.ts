import type { WriteOutcome } from '@/core/posts/outcome';
import { changeWords, quoted } from '@/core/calendar/change';
import type { Part } from '@/core/captions/compose';
import { partsOf } from '@/core/posts/parts';
import type { WrittenField } from '@/core/posts/written';
import { mayEdit } from '@/core/stages/moves';
import type { Format } from '@/core/rulesheets/types';
import type { Result } from '@/core/refusal';
import type { PostChange } from '@/data/posts/posts';
import { takePostAt } from '../posts/takePosts';
import { doing, must, refused, type Work } from '../useCase';
import { changePost } from '../posts/writePosts';

/**
 * The fields of a post that are written on its sheet; what is absent stays.
 *
 * @internal
 */
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

/** Writes fields of a post, based on the version given. A scheduled post keeps leaving as it was copied. */
export function editPost(work: Work, id: string, version: number, edit: PostEdit): Promise<Result<WriteOutcome>> {
  return doing(work, async (act) => {
    const open = await takePostAt(act, id, version, 'changePosts');
    const { post, channel, pictures } = open;
    must(mayEdit(open.facts));
    const { partTexts, ...change } = edit;
    const written: PostChange = change;
    if (edit.parts || partTexts)
      written.parts = partsAfter(edit.parts ?? partsOf({ ...post, pictures }, channel.sheet), partTexts ?? {});
    return changePost(act, {
      open,
      change: written,
      deed: 'edited',
      detail: { fields: Object.keys(edit) },
      ...undoOf(edit, post.title),
    });
  });
}

/** What is filled in beside the words is undone like a move; words have steps of their own in their fields. */
function undoOf({ format, ownerId, pillarId, campaignId }: PostEdit, title: string): { undoneAs?: string } {
  if (format !== undefined) return { undoneAs: `Gave ${quoted(title)} another format` };
  if (ownerId !== undefined) return { undoneAs: changeWords({ kind: 'owner', ownerId }, title) };
  if (pillarId !== undefined) return { undoneAs: changeWords({ kind: 'pillar', pillarId }, title) };
  return campaignId === undefined ? {} : { undoneAs: changeWords({ kind: 'campaign', campaignId }, title) };
}

/** The parts with some of their texts written anew. */
function partsAfter(parts: readonly Part[], texts: Record<string, string>): readonly Part[] {
  const lost = Object.keys(texts).find((id) => !parts.some((part) => part.id === id));
  if (lost !== undefined)
    refused({
      code: 'badParts',
      field: 'parts',
      message: 'The part you wrote was removed while you were writing it.',
    });
  return parts.map((part) => (Object.hasOwn(texts, part.id) ? { ...part, text: texts[part.id]! } : part));
}
