import { door } from '@/app/server/door';
import { string } from 'yup';
import type { RuleSheet } from '@/core/rulesheets/types';
import { saveRuleSheet } from '@/usecases/brands/ruleSheets';
import { fields } from '@/app/server/fields';
import { answer, readBody, refusal } from '@/app/server/request';
import { ruleSheetFields } from '@/app/server/ruleSheetFields';

const schema = fields({
  id: string().uuid().nullable().defined(),
  sheet: ruleSheetFields,
});

/** Makes a rule sheet, or changes the one named. */
export const POST = door('manageHouse', async (request, _context, { work }) => {
  const body = await readBody(request, schema);
  if (!body.ok) return refusal(body.refusal);
  return answer(await saveRuleSheet(work, body.value.id, body.value.sheet as unknown as RuleSheet));
});
