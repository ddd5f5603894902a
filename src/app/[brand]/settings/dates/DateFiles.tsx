'use client';

import { useState, type FormEvent } from 'react';
import { useRouter } from 'next/navigation';
import Button from 'react-bootstrap/Button';
import type { DateFile } from '@/usecases/calendar/reading';
import type { DatesOutcome } from '@/usecases/calendar/knownDates';
import { call, problemOf, sendForm } from '@/ui/api';
import { dateWithYear, dayAndTime } from '@/ui/format';
import { useSay } from '@/ui/messages';
import { useShell } from '@/ui/shell';
import { BadRows } from '../BadRows';
import { WordButton } from '@/ui/WordButton';
import Table from 'react-bootstrap/Table';
import { FieldRefusal } from '@/ui/FieldRefusal';

/** Brings iCalendar files of dates in, replaces and removes them. */
export function DateFiles({ files }: { files: readonly DateFile[] }) {
  const { brand } = useShell();
  const router = useRouter();
  const say = useSay();
  const [file, setFile] = useState<File | null>(null);
  const [name, setName] = useState('');
  const [problem, setProblem] = useState<string | null>(null);
  const [outcome, setOutcome] = useState<DatesOutcome | null>(null);
  const [busy, setBusy] = useState(false);

  async function bring(event: FormEvent) {
    event.preventDefault();
    if (!file) return setProblem('Choose an iCalendar file (.ics) first.');
    setBusy(true);
    const answer = await sendForm<DatesOutcome>('/api/calendar/dates', { file, brandId: brand.id, name });
    setBusy(false);
    setProblem(problemOf(answer));
    if (answer.kind !== 'done') return;
    setOutcome(answer.value);
    setName('');
    router.refresh();
  }

  async function rename(one: DateFile, to: string): Promise<boolean> {
    const problem = problemOf(await call('PATCH', '/api/calendar/dates', { brandId: brand.id, id: one.id, name: to }));
    if (problem) say({ text: problem, wrong: true });
    else router.refresh();
    return problem === null;
  }

  async function remove({ id, name: called }: DateFile) {
    const problem = problemOf(await call('DELETE', '/api/calendar/dates', { brandId: brand.id, id }));
    if (problem) return say({ text: problem, wrong: true });
    say({ text: `Removed “${called}”. Import the file again to restore it.` });
    router.refresh();
  }

  return (
    <>
      <p className="soft">
        Dates to plan around, such as holidays and events, show as a thin band at the head of their days.
      </p>
      <Table bsPrefix="settings-table">
        <thead>
          <tr>
            <th scope="col">Name</th>
            <th scope="col">Dates</th>
            <th scope="col">From the file</th>
            <th scope="col">Imported</th>
            <th scope="col">Repeating dates up to</th>
            <th scope="col">
              <span className="visually-hidden">Actions</span>
            </th>
          </tr>
        </thead>
        <tbody>
          {files.map((one) => (
            <tr key={one.id}>
              <td>
                <NameOfFile file={one} onRename={(to) => rename(one, to)} />
              </td>
              <td className="figures">{one.count}</td>
              <td>{one.fileName}</td>
              <td>{dayAndTime(one.importedAt, brand.zone)}</td>
              <td>{dateWithYear(one.reckonedTo)}</td>
              <td className="row-deeds">
                <WordButton onClick={() => setName(one.name)}>Replace</WordButton>{' '}
                <WordButton className="soft" onClick={() => void remove(one)} aria-label={`Remove ${one.name}`}>
                  Remove
                </WordButton>
              </td>
            </tr>
          ))}
          {files.length === 0 && (
            <tr>
              <td colSpan={6} className="soft">
                None yet. Import a calendar file of public holidays, for example.
              </td>
            </tr>
          )}
        </tbody>
      </Table>
      <form className="bring" onSubmit={(event) => void bring(event)}>
        <label>
          iCalendar file{' '}
          <input
            type="file"
            accept=".ics,text/calendar"
            onChange={(event) => setFile(event.target.files?.[0] ?? null)}
          />
        </label>
        <label>
          Name{' '}
          <input
            dir="auto"
            value={name}
            placeholder="as the file says"
            onChange={(event) => setName(event.target.value)}
          />
        </label>
        <Button type="submit" disabled={busy}>
          {busy
            ? 'Reading…'
            : files.some((one) => one.name === name.trim())
              ? `Replace ${name.trim()}`
              : 'Import the dates'}
        </Button>
      </form>
      <FieldRefusal>{problem}</FieldRefusal>
      {outcome && (
        <p role="status">
          Brought {outcome.count === 1 ? '1 date' : `${outcome.count} dates`} in as “{outcome.name}”.
        </p>
      )}
      {outcome && <BadRows bad={outcome.bad} />}
    </>
  );
}

/** The name of a file, which becomes a field when it is pressed. Enter or leaving it renames, Escape keeps the old name. */
function NameOfFile({ file, onRename }: { file: DateFile; onRename: (name: string) => Promise<boolean> }) {
  const [typed, setTyped] = useState<string | null>(null);
  if (typed === null)
    return (
      <WordButton aria-label={`Rename “${file.name}”`} onClick={() => setTyped(file.name)}>
        {file.name}
      </WordButton>
    );
  async function finish() {
    const name = typed!.trim();
    if (name === '' || name === file.name || (await onRename(name))) setTyped(null);
  }
  return (
    <input
      aria-label={`Name of “${file.name}”`}
      value={typed}
      autoFocus
      dir="auto"
      onChange={(event) => setTyped(event.target.value)}
      onBlur={() => void finish()}
      onKeyDown={(event) => {
        if (event.key === 'Enter') void finish();
        if (event.key === 'Escape') setTyped(null);
      }}
    />
  );
}
