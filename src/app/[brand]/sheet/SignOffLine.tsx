'use client';

import Button from 'react-bootstrap/Button';
import type { PostSheet } from '@/core/posts/sheet';
import type { SignOffState } from '@/core/posts/signOff';
import { problemOf } from '@/ui/api';
import { dayAndTime } from '@/ui/format';
import { useSay } from '@/ui/messages';
import { useMay, useShell } from '@/ui/shell';
import type { PostEditor } from './usePostEditor';
import { WordButton } from '@/ui/WordButton';

const STATE_WORDS: Record<Exclude<SignOffState, 'notAsked'>, string> = {
  missing: 'Nobody has signed it off yet.',
  given: 'Signed off',
  outdated: 'Changed since it was signed off',
};

/** Whether a post is signed off, where its brand asks for that; who may sign does it here. */
export function SignOffLine({ editor, sheet }: { editor: PostEditor; sheet: PostSheet }) {
  const { people, me, brand } = useShell();
  const say = useSay();
  const may = useMay();
  const { state, last } = sheet.signOff;
  if (state === 'notAsked') return null;
  const isOut = sheet.stage === 'published' || sheet.stage === 'setAside';
  const mayGive = may('signOff') && !isOut;
  const mayTakeBack = mayGive && (last?.by === me.id || may('waive'));

  async function doIt(deed: 'signOff' | 'takeSignOffBack') {
    const answer = await editor.change('POST', `/api/posts/${sheet.id}/deeds`, (version) => ({ deed, version }));
    const problem = problemOf(answer);
    if (problem) say({ text: problem, wrong: true });
  }

  return (
    <section className={`sign-off is-${state}`} aria-label="Sign-off">
      <span>
        {STATE_WORDS[state]}
        {last && (
          <>
            {' '}
            by {people.find(({ id }) => id === last.by)?.name ?? 'somebody'}, {dayAndTime(last.at, brand.zone)}
          </>
        )}
      </span>
      {mayGive &&
        (state === 'given' ? (
          mayTakeBack && (
            <WordButton className="push" onClick={() => void doIt('takeSignOffBack')}>
              Withdraw sign-off
            </WordButton>
          )
        ) : (
          <Button variant="outline-primary" size="sm" className="push" onClick={() => void doIt('signOff')}>
            Sign off
          </Button>
        ))}
    </section>
  );
}
