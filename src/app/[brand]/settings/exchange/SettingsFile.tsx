'use client';

import { useRouter } from 'next/navigation';
import { useState } from 'react';
import Button from 'react-bootstrap/Button';
import type { BrandFilePart } from '@/core/exchange/brandFile';
import { counted } from '@/core/words';
import { problemOf, sendForm } from '@/ui/api';
import { FieldRefusal } from '@/ui/FieldRefusal';
import { useShell } from '@/ui/shell';

const BECOMES: Record<BrandFilePart['becomes'], string> = {
  new: 'is new',
  changed: 'changes',
  same: 'is as it is',
  leftOut: 'is left out',
};

/** A JSON file of a brand's settings: chosen, looked at part by part, then brought in. */
export function SettingsFile() {
  const { brand } = useShell();
  const router = useRouter();
  const [file, setFile] = useState<File | null>(null);
  const [parts, setParts] = useState<BrandFilePart[] | null>(null);
  const [isDone, setDone] = useState(false);
  const [busy, setBusy] = useState<string | null>(null);
  const [problem, setProblem] = useState<string | null>(null);

  async function send(chosen: File, apply: '' | 'whole') {
    setBusy(apply === '' ? 'Reading…' : 'Importing…');
    const answer = await sendForm<BrandFilePart[]>('/api/settings/file', { file: chosen, brandId: brand.id, apply });
    setBusy(null);
    setProblem(problemOf(answer));
    setParts(answer.kind === 'done' ? answer.value : null);
    setDone(apply === 'whole' && answer.kind === 'done');
    if (apply === 'whole') router.refresh();
  }

  const told = parts?.filter(({ becomes }) => becomes !== 'same') ?? [];
  const same = (parts?.length ?? 0) - told.length;
  const isSomething = told.some(({ becomes }) => becomes !== 'leftOut');
  return (
    <>
      <p className="bring">
        <label>
          JSON file of settings{' '}
          <input
            type="file"
            accept=".json,application/json"
            onChange={(event) => {
              const chosen = event.target.files?.[0] ?? null;
              setFile(chosen);
              setParts(null);
              if (chosen) void send(chosen, '');
            }}
          />
        </label>{' '}
        {busy && <span className="soft">{busy}</span>}
      </p>
      <FieldRefusal>{problem}</FieldRefusal>
      {parts && (
        <>
          <ul aria-label={isDone ? 'What came in' : 'What would come in'}>
            {told.map(({ what, becomes, reason }) => (
              <li key={what} className={becomes === 'leftOut' ? 'attention' : undefined}>
                {what} {BECOMES[becomes]}
                {reason && `. ${reason}`}
              </li>
            ))}
          </ul>
          <p role="status">
            {isDone && 'Imported. '}
            {same > 0 && counted(same, 'setting is as it is.', 'settings are as they are.')}
            {parts.length === 0 && 'The file holds no settings.'}
          </p>
          {!isDone && isSomething && file && (
            <Button disabled={busy !== null} onClick={() => void send(file, 'whole')}>
              Import these settings
            </Button>
          )}
        </>
      )}
    </>
  );
}
