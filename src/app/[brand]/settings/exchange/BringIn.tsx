'use client';

import { counted } from '@/core/words';
import { useRef, useState } from 'react';
import { useRouter } from 'next/navigation';
import Button from 'react-bootstrap/Button';
import { COLUMNS, columnLabel, type DateOrder } from '@/core/exchange/columns';
import type { ImportMapping } from '@/core/exchange/planImport';
import { ALL_STAGES, STAGE_LABELS, type Stage } from '@/core/stages/stages';
import type { ImportOutcome } from '@/usecases/exchange/importRows';
import type { RunningImport } from '@/usecases/exchange/longImport';
import type { ImportPreview } from '@/usecases/exchange/previewImport';
import { problemOf, sendForm } from '@/ui/api';
import { useShell } from '@/ui/shell';
import { useUndo } from '@/ui/undo';
import { BadRows } from '../BadRows';
import { ImportProgress } from './ImportProgress';
import { Outcome } from './Outcome';
import { RowNotes } from './RowNotes';
import Table from 'react-bootstrap/Table';
import { FieldRefusal } from '@/ui/FieldRefusal';

const ORDERS: { value: DateOrder; label: string }[] = [
  { value: 'ymd', label: 'year, month, day' },
  { value: 'dmy', label: 'day, month, year' },
  { value: 'mdy', label: 'month, day, year' },
];

/** A CSV file of posts: chosen, looked at with its mapping, then brought in whole or without its bad rows. */
export function BringIn({ running: before }: { running: RunningImport | null }) {
  const { brand, channels } = useShell();
  const router = useRouter();
  const { undo } = useUndo();
  const [file, setFile] = useState<File | null>(null);
  const [preview, setPreview] = useState<ImportPreview | null>(null);
  const [outcome, setOutcome] = useState<ImportOutcome | null>(null);
  const [problem, setProblem] = useState<string | null>(null);
  const [running, setRunning] = useState(before);
  const [busy, setBusy] = useState<string | null>(null);
  /** The mapping last asked for, which may be ahead of the one in the preview, and the number of that question. */
  const asked = useRef<{ mapping: ImportMapping | null; number: number }>({ mapping: null, number: 0 });

  async function look(chosen: File, mapping: ImportMapping | null) {
    const number = asked.current.number + 1;
    asked.current = { mapping, number };
    setBusy('Reading…');
    const answer = await sendForm<ImportPreview>('/api/calendar/import', {
      file: chosen,
      brandId: brand.id,
      apply: '',
      mapping: mapping ? JSON.stringify(mapping) : '',
    });
    if (number !== asked.current.number) return;
    setBusy(null);
    setOutcome(null);
    setProblem(problemOf(answer));
    setPreview(answer.kind === 'done' ? answer.value : null);
    if (answer.kind === 'done') asked.current.mapping = answer.value.mapping;
  }

  async function bring(extent: 'whole' | 'good') {
    if (!file || !preview) return;
    setBusy('Importing…');
    const answer = await sendForm<ImportOutcome | { running: RunningImport }>('/api/calendar/import', {
      file,
      brandId: brand.id,
      apply: extent,
      mapping: JSON.stringify(preview.mapping),
    });
    setBusy(null);
    setProblem(problemOf(answer));
    if (answer.kind !== 'done') return;
    setPreview(null);
    if ('running' in answer.value) return setRunning(answer.value.running);
    setOutcome(answer.value);
    router.refresh();
  }

  function end({ id, refusal, outcome }: RunningImport) {
    setRunning(null);
    setProblem(refusal?.message ?? null);
    setOutcome(refusal && outcome.made + outcome.changed === 0 ? null : { ...outcome, changeId: id });
    router.refresh();
  }

  function takeBack(changeId: string) {
    setOutcome(null);
    undo(changeId);
  }

  const change = (part: (mapping: ImportMapping) => Partial<ImportMapping>) => {
    const mapping = asked.current.mapping;
    if (file && mapping) void look(file, { ...mapping, ...part(mapping) });
  };

  function choose(chosen: File | null) {
    setFile(chosen);
    setPreview(null);
    if (chosen) void look(chosen, null);
  }

  return (
    <div
      className="bring-in"
      onDragOver={(event) => event.preventDefault()}
      onDrop={(event) => {
        event.preventDefault();
        choose(event.dataTransfer.files[0] ?? null);
      }}
    >
      <p className="bring">
        <label>
          CSV file of posts, chosen or dropped here{' '}
          <input
            type="file"
            accept=".csv,.tsv,.txt,text/csv"
            onChange={(event) => choose(event.target.files?.[0] ?? null)}
          />
        </label>{' '}
        {busy && <span className="soft">{busy}</span>}
      </p>
      <FieldRefusal>{problem}</FieldRefusal>
      {running && <ImportProgress key={running.id} running={running} onEnd={end} />}
      {outcome && <Outcome outcome={outcome} onUndo={takeBack} />}
      {preview && (
        <>
          <div className="mapping-scroll">
            <Table bsPrefix="settings-table" className="mapping">
              <thead>
                <tr>
                  {preview.header.map((name, index) => (
                    <th key={index} scope="col">
                      {name || `column ${index + 1}`}
                      <select
                        aria-label={`What column ${name || index + 1} holds`}
                        value={COLUMNS.find((column) => preview.mapping.columns[column] === index) ?? ''}
                        onChange={(event) => {
                          const held = event.target.value as (typeof COLUMNS)[number] | '';
                          change((mapping) => {
                            const columns = { ...mapping.columns };
                            for (const column of COLUMNS) if (columns[column] === index) delete columns[column];
                            if (held) columns[held] = index;
                            return { columns };
                          });
                        }}
                      >
                        <option value="">(left out)</option>
                        {COLUMNS.map((column) => (
                          <option key={column} value={column}>
                            {columnLabel(column)}
                          </option>
                        ))}
                      </select>
                    </th>
                  ))}
                </tr>
              </thead>
              <tbody>
                {preview.sample.map((cells, row) => (
                  <tr key={row}>
                    {preview.header.map((_name, index) => (
                      <td key={index}>{cells[index]?.slice(0, 80)}</td>
                    ))}
                  </tr>
                ))}
              </tbody>
            </Table>
          </div>
          {preview.asksDateOrder && (
            <p className="attention">
              Is the day or the month first?{' '}
              <Choice
                label="Order of dates"
                choices={ORDERS.map(({ value, label }) => ({ id: value, name: label }))}
                onChoose={(order) => change(() => ({ dateOrder: order as DateOrder }))}
              />
            </p>
          )}
          {preview.unknownChannels.slice(0, 20).map((text) => (
            <p key={text} className="attention">
              Which channel is “{text}”?{' '}
              <Choice
                label={`Channel for ${text}`}
                choices={[...channels, { id: '', name: 'leave these rows out' }]}
                onChoose={(id) => change(({ channels }) => ({ channels: { ...channels, [text]: id || null } }))}
              />
            </p>
          ))}
          {preview.unknownStages.slice(0, 20).map((text) => (
            <p key={text} className="attention">
              Which stage is “{text}”?{' '}
              <Choice
                label={`Stage for ${text}`}
                choices={ALL_STAGES.map((stage) => ({ id: stage, name: STAGE_LABELS[stage] }))}
                onChoose={(stage) => change(({ stages }) => ({ stages: { ...stages, [text]: stage as Stage } }))}
              />
            </p>
          ))}
          <RowNotes notes={preview.notes} />
          {preview.pastRows > 0 && (
            <p className={preview.mapping.past === null ? 'attention' : ''}>
              {preview.pastRows === 1 ? '1 row is' : `${preview.pastRows} rows are`} in the past. They{' '}
              <select
                aria-label="What becomes of rows in the past"
                value={preview.mapping.past ?? ''}
                onChange={(event) => {
                  const past = (event.target.value || null) as ImportMapping['past'];
                  change(() => ({ past }));
                }}
              >
                <option value="">… choose</option>
                <option value="publishedElsewhere">were published elsewhere</option>
                <option value="setAside">will be set aside</option>
              </select>
            </p>
          )}
          <p>
            <b>{preview.fresh}</b> new, <b>{preview.changed}</b> change a post that is there, <b>{preview.same}</b> are
            as they are.
          </p>
          <BadRows bad={preview.bad} />
          <p>
            <Button
              disabled={
                busy !== null ||
                running !== null ||
                preview.good === 0 ||
                (preview.pastRows > 0 && preview.mapping.past === null)
              }
              onClick={() => void bring(preview.bad.length === 0 ? 'whole' : 'good')}
            >
              {preview.bad.length === 0
                ? `Import ${counted(preview.good, 'row')}`
                : `Import the ${counted(preview.good, 'good row')}`}
            </Button>
          </p>
        </>
      )}
    </div>
  );
}

function Choice({
  label,
  choices,
  onChoose,
}: {
  label: string;
  choices: readonly { id: string; name: string }[];
  onChoose: (id: string) => void;
}) {
  return (
    <select aria-label={label} value="?" onChange={(event) => onChoose(event.target.value)}>
      <option value="?" disabled>
        … choose
      </option>
      {choices.map(({ id, name }) => (
        <option key={id} value={id}>
          {name}
        </option>
      ))}
    </select>
  );
}
