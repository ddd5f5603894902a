import { array, mixed, number, object, string, ValidationError } from 'yup';
import { BRAND_FILE, type BrandFile } from '@/core/exchange/brandFile';
import { PREP_SUBJECTS, type PrepSubject } from '@/core/prep/subject';
import { STEPS_LIMIT } from '@/core/prep/step';
import { refuse, type Result } from '@/core/refusal';
import { cleanDeep } from '@/core/text/clean';
import { fanOutSettingFields } from './fanOutSettingFields';
import { fields, text } from './fields';
import { placeIn } from './plainYup';
import { pauseFields, rhythmEntryFields } from './rhythmFields';
import { ruleSheetFields } from './ruleSheetFields';
import { nameFields, shelfFields } from './shelfFields';
import { stepFields } from './stepFields';

/** Bytes of a file of settings that are taken in. */
export const BRAND_FILE_LIMIT_BYTES = 2_000_000;

const { ownerId: _ownerId, ...lineFields } = stepFields;
const most = 2_000;

const schema = fields({
  kind: string().oneOf([BRAND_FILE.kind], 'This is no file of a brand’s settings.').required(),
  edition: number()
    .oneOf([BRAND_FILE.edition], 'The file is from another Bimlo, whose form this one does not know.')
    .required(),
  shelf: array(fields(shelfFields).required()).max(most).default([]),
  names: array(fields(nameFields).required()).max(most).default([]),
  rhythms: array(
    fields({
      channel: text('Channel'),
      entries: array(fields({ ...rhythmEntryFields, pillar: text('Pillar') }).required())
        .max(200)
        .required(),
      pauses: pauseFields,
    }).required(),
  )
    .max(most)
    .default([]),
  ruleSheets: array(ruleSheetFields).max(most).default([]),
  prepSheets: array(
    fields({
      subject: mixed<PrepSubject>()
        .oneOf([...PREP_SUBJECTS], 'There is no such format or kind of piece.')
        .required(),
      lines: array(object({ ...lineFields, who: text('Who') }).noUnknown())
        .max(STEPS_LIMIT)
        .required(),
    }).required(),
  )
    .max(most)
    .default([]),
  fanOuts: array(fields({ slug: text('Short name'), ...fanOutSettingFields }).required())
    .max(most)
    .default([]),
})
  .typeError('This is no file of a brand’s settings.')
  .nonNullable('This is no file of a brand’s settings.');

/** Reads a file of a brand's settings. Refused: what is no JSON, or not of its form, with the place where it is not. */
export function readBrandFileText(json: string): Result<BrandFile> {
  try {
    const told = schema.validateSync(cleanDeep(JSON.parse(json)), { strict: true });
    return { ok: true, value: schema.cast(told) as unknown as BrandFile };
  } catch (error) {
    if (error instanceof ValidationError) {
      const place = placeIn(error.path);
      const said = error.message.startsWith(place) ? error.message : `${place}: ${error.message}`;
      return refuse('badFile', said, 'file');
    }
    if (error instanceof SyntaxError || error instanceof RangeError)
      return refuse('badFile', 'This is no file of a brand’s settings: it is not JSON.', 'file');
    throw error;
  }
}
