import { accept, refuse, type Result } from '../refusal';
import { slugOf } from '../text/slug';

/** Characters a password has: short ones are guessed, and longer ones than these nobody types. */
export const PASSWORD_LIMITS = { least: 10, most: 200 } as const;

/** What is tried first by whoever guesses, without figures and signs. */
const GUESSED_FIRST = new Set([
  'password',
  'passwort',
  'letmein',
  'qwertyuiop',
  'iloveyou',
  'welcome',
  'bimlo',
  'admin',
]);

/**
 * A password as it is kept, that is in the same form whatever keyboard wrote it (Unicode NFKC, as NIST SP 800-63B asks). What
 * it is made of is nobody's business; only what would be guessed at once is refused.
 *
 * @param names what its person is called, which no password is
 * @returns refused with `shortPassword`, `longPassword` or `guessedPassword` of the field `password`
 */
export function readPassword(typed: string, names: readonly string[] = []): Result<string> {
  const password = typed.normalize('NFKC');
  const { length } = [...password];
  if (length < PASSWORD_LIMITS.least)
    return refuse(
      'shortPassword',
      `A password has at least ${PASSWORD_LIMITS.least} characters: a few words that do not belong together are good.`,
      'password',
    );
  if (length > PASSWORD_LIMITS.most)
    return refuse('longPassword', `A password has at most ${PASSWORD_LIMITS.most} characters.`, 'password');
  const letters = password.toLowerCase().replace(/[^\p{Letter}]/gu, '');
  const isName = names.some((name) => slugOf(name) !== '' && slugOf(name) === slugOf(password));
  if (isName || GUESSED_FIRST.has(letters) || new Set(password).size < 4)
    return refuse('guessedPassword', 'That password is among the first that are guessed. Choose another.', 'password');
  return accept(password);
}

/** A password that was typed to sign in, in the form in which it is kept; of one that is longer than any, no more than tells so. */
export const asKept = (typed: string): string => typed.slice(0, 10 * PASSWORD_LIMITS.most).normalize('NFKC');
