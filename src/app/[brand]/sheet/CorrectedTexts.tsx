'use client';

import { useMemo } from 'react';
import type { CorrectedText } from '@/core/corrections/correctPost';
import { WRITTEN_LABELS } from '@/core/posts/written';
import { differencesOf } from '@/core/text/differences';

/** Characters of a stretch without a change that are shown on either side of one. */
const AROUND = 90;

/** The texts of a post that say what its piece said, each as it is and as it would be, side by side. */
export function CorrectedTexts({ texts, gone }: { texts: readonly CorrectedText[]; gone: readonly string[] }) {
  return (
    <>
      {texts.map((text) => (
        <BeforeAndAfter key={`${text.of}-${text.number ?? ''}`} text={text} />
      ))}
      {gone.map((sentence) => (
        <p key={sentence} className="corrected-gone small-text">
          The piece no longer says: <q dir="auto">{sentence}</q> Change it by hand.
        </p>
      ))}
    </>
  );
}

const labelOf = ({ of, number }: CorrectedText): string => {
  if (of === 'parts') return `Part ${number}`;
  if (of === 'card') return `Card, picture ${number}`;
  return of === 'alt' ? `Alt text of picture ${number}` : WRITTEN_LABELS[of];
};

function BeforeAndAfter({ text }: { text: CorrectedText }) {
  const { before, after } = text;
  const differences = useMemo(() => differencesOf(before, after), [before, after]);
  const last = differences.length - 1;
  const side = (skipped: 'added' | 'removed') =>
    differences.map((one, at) => {
      if (one[skipped]) return null;
      if (one.added) return <ins key={at}>{one.value}</ins>;
      if (one.removed) return <del key={at}>{one.value}</del>;
      return <span key={at}>{clipped(one.value, at > 0, at < last)}</span>;
    });
  return (
    <div className="corrected" role="group" aria-label={labelOf(text)}>
      <span className="corrected-label small-text soft">{labelOf(text)}</span>
      <pre dir="auto" className="differences" aria-label="As it is">
        {side('added')}
      </pre>
      <pre dir="auto" className="differences" aria-label="Corrected">
        {side('removed')}
      </pre>
    </div>
  );
}

/** A stretch without a change, of which only what stands next to changes is shown. */
function clipped(text: string, hasBefore: boolean, hasAfter: boolean): string {
  const [head, tail] = [hasBefore ? AROUND : 0, hasAfter ? AROUND : 0];
  if (text.length <= head + tail + AROUND) return text;
  // Cut at a blank, where the script has any.
  const begin = text.slice(0, text.lastIndexOf(' ', head) + 1 || head);
  const from = text.indexOf(' ', text.length - tail);
  const end = tail === 0 ? '' : text.slice(from < 0 ? text.length - tail : from);
  return `${begin}…${end}`;
}
