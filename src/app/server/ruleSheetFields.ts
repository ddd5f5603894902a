import { array, boolean, number, object, string } from 'yup';
import { TEXT_FIELDS } from '@/core/rulesheets/types';
import { format, text } from './fields';

const field = object({
  name: string().oneOf(TEXT_FIELDS).required(),
  label: text('Label'),
  limit: number().typeError('A limit is a number.').required('The limit is missing.'),
  required: boolean().required(),
  unit: text('Unit'),
  wideWeight: number().required(),
  linkLength: number().nullable().defined(),
  fold: object({ units: number().nullable().defined(), lines: number().nullable().defined() })
    .nullable()
    .defined()
    .default(undefined),
  parts: array(string().required()).required(),
  formats: array(format.required()).default(undefined).optional(),
  rich: boolean().optional(),
}).noUnknown();

const shapes = object({ narrowest: number().required(), widest: number().required() })
  .noUnknown()
  .nullable()
  .default(undefined);

/** A rule sheet as a request or a file brings it; what each field may hold is checked by core. */
export const ruleSheetFields = object({
  slug: text('Short name'),
  name: text('Name'),
  automatic: boolean().required(),
  kind: string().required('Say what kind of network it is.'),
  about: text('About'),
  fields: array(field).required(),
  hashtagLimit: number().typeError('Hashtags: a number, or none.').nullable().defined(),
  linksClickable: boolean().required(),
  formats: array(
    object({
      format: format.required(),
      picturesMin: number().required(),
      picturesMax: number().required(),
      shapes,
      minWidth: number().nullable(),
      parts: object({
        label: string().oneOf(['slide', 'part', 'frame']).required(),
        most: number().required(),
        limit: number().required(),
        needs: string().oneOf(['picture', 'text']).required(),
      })
        .noUnknown()
        .nullable()
        .default(undefined),
      video: object({
        secondsMin: number().required(),
        secondsMax: number().required(),
        maxBytes: number().required(),
        shapes,
      })
        .noUnknown()
        .nullable()
        .default(undefined),
    }).noUnknown(),
  ).required(),
  pictureTypes: array(string().required()).required(),
  pictureMaxBytes: number().required(),
})
  .noUnknown()
  .required();
