import type { useSetting } from './useSetting';

/** Why a form was not saved; where somebody else saved meanwhile, with the way to what they saved. */
export function Problem({ of, onTheirs }: { of: ReturnType<typeof useSetting>; onTheirs: () => void }) {
  if (of.problem === null) return null;
  return (
    <div className="field-refusal" role="alert">
      {of.problem}{' '}
      {of.isStale && (
        <button type="button" className="word" onClick={() => of.takeTheirs(onTheirs)}>
          Show theirs instead of mine
        </button>
      )}
    </div>
  );
}
