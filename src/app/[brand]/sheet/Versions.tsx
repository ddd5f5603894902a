'use client';

import { differencesOf } from '@/core/text/differences';
import { useEffect, useMemo, useState } from 'react';
import Button from 'react-bootstrap/Button';
import { Dialog } from '@/ui/Dialog';
import { differingFields, WRITTEN_LABELS, type WrittenWords } from '@/core/posts/written';
import type { WordsVersion } from '@/usecases/posts/reading';
import { call, problemOf } from '@/ui/api';
import { dayAndTime } from '@/ui/format';
import { useShell } from '@/ui/shell';
import { FieldRefusal } from '@/ui/FieldRefusal';

/** What a post's words were: who wrote when, how a version differs from the present words, and taking it back. */
export function Versions({
  postId,
  now,
  onTake,
  onClose,
}: {
  postId: string;
  /** The present words. */
  now: WrittenWords;
  /** Takes the words of a version; absent where the post is fixed. */
  onTake: ((words: WrittenWords) => void) | null;
  onClose: () => void;
}) {
  const { brand, people } = useShell();
  const [versions, setVersions] = useState<readonly WordsVersion[] | null>(null);
  const [chosenId, setChosenId] = useState<string | null>(null);
  const [problem, setProblem] = useState<string | null>(null);

  useEffect(() => {
    void call<WordsVersion[]>('GET', `/api/posts/${postId}/versions`).then((answer) => {
      setProblem(problemOf(answer));
      if (answer.kind === 'done') setVersions(answer.value);
    });
  }, [postId]);

  const chosen = versions?.find(({ id }) => id === chosenId) ?? versions?.find((one) => differs(one.words, now));
  const nameOf = (id: string) => people.find((person) => person.id === id)?.name ?? 'somebody';
  return (
    <Dialog
      title="Versions"
      onClose={onClose}
      size="lg"
      deeds={
        chosen &&
        onTake &&
        differs(chosen.words, now) && <Button onClick={() => onTake(chosen.words)}>Restore this version</Button>
      }
    >
      <FieldRefusal>{problem}</FieldRefusal>
      {versions?.length === 0 && <p className="soft">There are no earlier versions yet.</p>}
      <div className="versions">
        <ul className="version-list">
          {versions?.map((version) => (
            <li key={version.id}>
              <button type="button" aria-pressed={version === chosen} onClick={() => setChosenId(version.id)}>
                <b>{nameOf(version.personId)}</b>
                <span className="figures">{dayAndTime(version.at, brand.zone)}</span>
                {!differs(version.words, now) && <span className="soft">as it stands</span>}
              </button>
            </li>
          ))}
        </ul>
        {chosen && <Comparison version={chosen.words} now={now} />}
      </div>
    </Dialog>
  );
}

const differs = (one: WrittenWords, other: WrittenWords): boolean => differingFields(one, other).length > 0;

/** Field by field: what the version has that is gone, and what came since. */
function Comparison({ version, now }: { version: WrittenWords; now: WrittenWords }) {
  const fields = differingFields(version, now);
  if (fields.length === 0) return <p className="soft">These are the words as they stand.</p>;
  return (
    <div className="comparison">
      <p className="soft">
        <del>Then</del>, <ins>now</ins>
      </p>
      {fields.map((field) => (
        <section key={field}>
          <h3>{field === 'parts' ? 'Parts' : WRITTEN_LABELS[field]}</h3>
          <Differences from={textOf(version, field)} to={textOf(now, field)} />
        </section>
      ))}
    </div>
  );
}

const textOf = (words: WrittenWords, field: keyof WrittenWords): string =>
  field === 'parts' ? words.parts.map(({ text }, index) => `${index + 1}. ${text}`).join('\n') : words[field];

/** Two texts as one: what only the first has struck out, what only the second has underlined. */
export function Differences({ from, to }: { from: string; to: string }) {
  const changes = useMemo(() => differencesOf(from, to), [from, to]);
  return (
    <pre className="differences">
      {changes.map(({ value, added, removed }, index) =>
        added ? (
          <ins key={index}>{value}</ins>
        ) : removed ? (
          <del key={index}>{value}</del>
        ) : (
          <span key={index}>{value}</span>
        ),
      )}
    </pre>
  );
}
