/** Why something asked for is not done: a value, never thrown by core. */
export interface Refusal {
  /** Stable name to branch on, for example `tooLong`. */
  code: string;
  /** The field it concerns, as the form names it; absent when it concerns the whole. */
  field?: string;
  /** One sentence for the person: what is wrong and what mends it. */
  message: string;
}

/** Either a value or the reason there is none. */
export type Result<T> = { ok: true; value: T } | { ok: false; refusal: Refusal };

/** A result that holds a value. */
export const accept = <T>(value: T): Result<T> => ({ ok: true, value });

/** A result that holds a refusal. */
export const refuse = (code: string, message: string, field?: string): Result<never> => ({
  ok: false,
  refusal: field === undefined ? { code, message } : { code, message, field },
});
