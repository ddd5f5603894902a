import type { useSetting } from './useSetting';
import { WordButton } from '@/ui/WordButton';
import { FieldRefusal } from '@/ui/FieldRefusal';

/** Why a form was not saved; where somebody else saved meanwhile, with the way to what they saved. */
export function Problem({ of, onTheirs }: { of: ReturnType<typeof useSetting>; onTheirs: () => void }) {
  if (of.problem === null) return null;
  return (
    <FieldRefusal>
      {of.problem}{' '}
      {of.isStale && <WordButton onClick={() => of.takeTheirs(onTheirs)}>Show theirs instead of mine</WordButton>}
    </FieldRefusal>
  );
}
