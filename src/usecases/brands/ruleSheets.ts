import { quoted } from '@/core/calendar/change';
import { answers } from '@/core/delivery/carrier';
import { readRuleSheet } from '@/core/rulesheets/read';
import type { RuleSheet } from '@/core/rulesheets/types';
import type { RulesOutcome } from '@/core/posts/outcome';
import type { Result } from '@/core/refusal';
import { channelsOfSheet, insertRuleSheets, listRuleSheets, updateRuleSheet } from '@/data/brands/channels';
import { noteFinal } from '../undo/noteChange';
import { mustMay } from '../rights/mustMay';
import { followRules } from '../delivery/rulesChanged';
import { takeSetting } from './takeSetting';
import { doing, must, notFound, refused, type Work } from '../useCase';

/** Makes a rule sheet (a copy of another, as a rule), or changes one: with an id. Channels that use it go by it at once. */
export function saveRuleSheet(
  work: Work,
  id: string | null,
  sheet: RuleSheet,
): Promise<Result<{ id: string } & Partial<RulesOutcome>>> {
  return doing(work, async (act) => {
    await mustMay(act, 'manageHouse', null);
    const all = await listRuleSheets(act.tx);
    const read = must(readRuleSheet(sheet));
    if (read.automatic && !answers(read.slug))
      refused({
        code: 'nobodyAnswers',
        field: 'automatic',
        message: 'No network answers under that short name, so posts for it are posted by hand. Take the mark away.',
      });
    const twin = all.find((other) => other.slug === read.slug && other.id !== id);
    if (twin) refused({ code: 'sameSlug', field: 'slug', message: `${twin.name} has that short name already.` });
    if (id === null) {
      const made = { id: act.ids(), sheet: read };
      await insertRuleSheets(act.tx, [made]);
      await noteFinal(act, `Made the rule sheet ${quoted(read.name)}`, IN_SETTINGS);
      return { id: made.id };
    }
    const before = all.find((other) => other.id === id);
    if (!before) refused(notFound('rule sheet'));
    await takeSetting(act, 'rule sheet', id);
    if (before.slug !== read.slug)
      refused({ code: 'fixedSlug', field: 'slug', message: 'The short name stands in addresses and stays as it is.' });
    await updateRuleSheet(act.tx, id, read);
    await noteFinal(act, `Changed the rule sheet ${quoted(read.name)}`, IN_SETTINGS);
    const channels = await channelsOfSheet(act.tx, id);
    await act.note(
      ...[...new Set(channels.map(({ brandId }) => brandId))].map((brandId) => ({
        brandId,
        subject: 'rule sheet' as const,
        subjectId: id,
        deed: 'changed',
      })),
    );
    // Rules are everybody's: they are held against the posts of all brands that go by them.
    const asBimlo = { ...act, actorId: null };
    return {
      id,
      ...(await followRules(
        asBimlo,
        channels.map((channel) => channel.id),
      )),
    };
  });
}

/** Why a rule sheet is not undone by a key. */
const IN_SETTINGS = 'The posts of all brands were held against it. It is changed back in Settings, Rule sheets.';
