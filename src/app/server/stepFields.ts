import { array, bool, number, string } from 'yup';
import { fields, text } from './fields';

/** The fields of a step as a request brings them; what each may hold is checked by core. */
export const stepFields = {
  title: text('Step'),
  work: string().required('Say what kind of work it is.'),
  ownerId: string().uuid('Owner is not a person who works here.').nullable().defined(),
  craft: string().nullable().defined(),
  lead: number().typeError('The lead is a number of days.').required('How many days before publishing?'),
  leadIn: string().required('Are those working days or calendar days?'),
  minutes: number().typeError('Minutes are a number.').nullable().defined(),
  note: string().defined(),
  needed: bool().required(),
  ticksItself: bool().default(false),
};

/** A step to be added. */
export const addedStep = fields(stepFields);

/** All steps of a post or piece, in another order. */
export const orderedSteps = fields({ ids: array(string().uuid().required()).max(100).required('Which order?') });
