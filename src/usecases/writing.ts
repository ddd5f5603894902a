import { readTitle, TEXT_LIMITS } from '@/core/pieces/piece';
import { blocksOf } from '@/core/posts/readiness';
import { mayEdit } from '@/core/stages/moves';
import { FORMAT_LABELS, formatRule, type Format } from '@/core/rulesheets/types';
import type { Result } from '@/core/refusal';
import { worksForBrand } from '@/data/people';
import { existsTheme } from '@/data/themes';
import type { PostChange } from '@/data/posts';
import { changePost, takePostAt } from './posts';
import { doing, must, mustFit, refused, type Work } from './work';

/** The fields of a post that are written on its sheet; what is absent stays. */
export interface PostEdit {
  title?: string;
  headline?: string;
  caption?: string;
  hashtags?: string;
  link?: string;
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
    const change: PostChange = { ...edit };
    if (edit.title !== undefined) change.title = must(readTitle(edit.title));
    for (const { name, label } of [
      { name: 'headline', label: 'Title' } as const,
      { name: 'caption', label: 'Caption' } as const,
    ])
      mustFit(
        edit[name] ?? '',
        TEXT_LIMITS[name],
        channel.sheet.fields.find((field) => field.name === name)?.label ?? label,
        name,
      );
    mustFit(edit.hashtags ?? '', TEXT_LIMITS.hashtags, 'Hashtags', 'hashtags');
    mustFit(edit.link ?? '', TEXT_LIMITS.link, 'Link', 'link');
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
    return { tookBack };
  });
}
