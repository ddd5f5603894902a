'use client';

import { useState } from 'react';
import { useLeave } from '@/ui/LeaveGuard';
import { Controller, useFieldArray, useWatch } from 'react-hook-form';
import Button from 'react-bootstrap/Button';
import Form from 'react-bootstrap/Form';
import Table from 'react-bootstrap/Table';
import { EXTRACT_KINDS, EXTRACT_LABELS } from '@/core/extracts/extracts';
import { FAN_OUT_LIMITS, type BrandFanOut, type FanOutRow, type RowSource } from '@/core/fanOut/fanOut';
import { KIND_LABELS, PIECE_KINDS } from '@/core/pieces/kinds';
import { FORMAT_LABELS, FORMATS, NETWORK_KIND_LABELS, NETWORK_KINDS } from '@/core/rulesheets/types';
import { useSay } from '@/ui/messages';
import { useShell } from '@/ui/shell';
import { WordButton } from '@/ui/WordButton';
import { useSetting } from '../useSetting';
import { useSettingForm } from '../useSettingForm';
import { Field } from '@/ui/Field';
import { FieldRefusal } from '@/ui/FieldRefusal';

type Shown = BrandFanOut & { version: number };

const NEW_ROW: FanOutRow = {
  ...{ network: 'microblog', format: 'text', count: 1, offset: 0, gap: 7 },
  source: { of: 'extracts', kinds: [] },
};
const NEW: Shown = {
  ...{ slug: '', name: '', for: null, rows: [NEW_ROW], isOwn: true, isShipped: false, isStanding: false },
  version: 0,
};

/** The fan-outs of a brand: chosen on the left, its rows set on the right. */
export function FanOutSettings({ fanOuts }: { fanOuts: readonly Shown[] }) {
  const [chosen, setChosen] = useState(fanOuts[0]!.slug);
  const leave = useLeave();
  const fanOut = chosen === '' ? NEW : (fanOuts.find(({ slug }) => slug === chosen) ?? fanOuts[0]!);
  return (
    <div className="prep-sheets">
      <nav aria-label="Fan-outs">
        {fanOuts.map(({ slug, name, rows, isStanding }) => (
          <button
            key={slug}
            type="button"
            aria-current={slug === fanOut.slug ? 'true' : undefined}
            onClick={() => leave(() => setChosen(slug))}
          >
            {name}{' '}
            <span className="figures soft">
              {rows.length}
              {isStanding ? ', by itself' : ''}
            </span>
          </button>
        ))}
        <button
          type="button"
          aria-current={chosen === '' ? 'true' : undefined}
          onClick={() => leave(() => setChosen(''))}
        >
          New fan-out
        </button>
      </nav>
      <OneFanOut key={`${fanOut.slug} ${fanOut.isOwn}`} fanOut={fanOut} onChosen={setChosen} />
    </div>
  );
}

/** What a row is made from, as one value of a choice. */
const sourceKey = (source: RowSource): string =>
  source.of === 'extracts' ? `extracts ${source.kinds.join(' ')}`.trim() : source.of;

const SOURCES: { source: RowSource; words: string }[] = [
  { source: { of: 'whole' }, words: 'the whole piece' },
  { source: { of: 'extracts', kinds: [] }, words: 'any extract' },
  ...EXTRACT_KINDS.map((kind) => ({
    source: { of: 'extracts' as const, kinds: [kind] },
    words: `a ${EXTRACT_LABELS[kind]}`,
  })),
  { source: { of: 'clips' }, words: 'a clip' },
];

/** What a row is made from, in words; a mixture of kinds is named by them. */
const wordsOf = (source: RowSource): string =>
  SOURCES.find((one) => sourceKey(one.source) === sourceKey(source))?.words ??
  (source.of === 'extracts' ? source.kinds.map((kind) => EXTRACT_LABELS[kind]).join(', ') : source.of);

function OneFanOut({ fanOut, onChosen }: { fanOut: Shown; onChosen: (slug: string) => void }) {
  const { brand } = useShell();
  const say = useSay();
  const kept = {
    name: fanOut.name,
    for: fanOut.for ?? '',
    isStanding: fanOut.isStanding,
    rows: fanOut.rows.map((row) => ({ ...row })),
  };
  const { register, control, handleSubmit, save, refusalOf, problem } = useSettingForm(kept, fanOut.version);
  const { fields, append, remove, move } = useFieldArray({ control, name: 'rows' });
  const forgetting = useSetting(fanOut.version);
  const kind = useWatch({ control, name: 'for' });

  const submit = handleSubmit((typed) =>
    save<{ slug: string }>(
      '/api/settings/fan-outs',
      { brandId: brand.id, slug: fanOut.slug || null, ...typed, for: typed.for || null },
      ({ slug }) => {
        say({ text: `Saved “${typed.name.trim()}”.` });
        onChosen(slug);
      },
    ),
  );
  async function forget() {
    const answer = await forgetting.save('DELETE', '/api/settings/fan-outs', { brandId: brand.id, slug: fanOut.slug });
    if (answer.kind !== 'done') return;
    say({ text: fanOut.isShipped ? 'The one that ships with Bimlo holds again.' : `Removed “${fanOut.name}”.` });
  }

  return (
    <Form onSubmit={(event) => void submit(event)} noValidate aria-label={fanOut.name || 'New fan-out'}>
      <p className="soft">
        One piece becomes these posts.{' '}
        {fanOut.slug !== '' && fanOut.isOwn ? (
          <WordButton onClick={() => void forget()}>
            {fanOut.isShipped ? 'Use the one that ships with Bimlo' : 'Remove this fan-out'}
          </WordButton>
        ) : (
          fanOut.isShipped && 'It ships with Bimlo: change what you do otherwise.'
        )}
      </p>
      <div className="d-flex-row mb-3">
        <Field id="fan-out-name" label="Name" refusal={refusalOf('name')}>
          <Form.Control dir="auto" {...register('name')} />
        </Field>
        <Field id="fan-out-for" label="For" refusal={refusalOf('for')}>
          <Form.Select {...register('for')}>
            <option value="">any piece</option>
            {PIECE_KINDS.map((one) => (
              <option key={one} value={one}>
                {KIND_LABELS[one]}
              </option>
            ))}
          </Form.Select>
        </Field>
      </div>
      <Form.Check
        id="fan-out-standing"
        className="mb-3"
        disabled={kind === ''}
        label="Drawn up by itself as soon as the text of such a piece is there: its posts wait on the desk to be accepted or rejected"
        {...register('isStanding')}
      />
      <FieldRefusal tied>{refusalOf('isStanding')}</FieldRefusal>
      <Table bsPrefix="timetable" className="fan-out-settings">
        <thead>
          <tr>
            <th scope="col">Kind of network</th>
            <th scope="col">Format</th>
            <th scope="col">Posts</th>
            <th scope="col">Made from</th>
            <th scope="col">Days after</th>
            <th scope="col">Days apart</th>
            <th scope="col">
              <span className="visually-hidden">Order</span>
            </th>
          </tr>
        </thead>
        <tbody>
          {fields.map((field, at) => (
            <tr key={field.id}>
              <td data-label="Kind of network">
                <Form.Select aria-label={`Kind of network, row ${at + 1}`} {...register(`rows.${at}.network`)}>
                  {NETWORK_KINDS.map((one) => (
                    <option key={one} value={one}>
                      {NETWORK_KIND_LABELS[one]}
                    </option>
                  ))}
                </Form.Select>
              </td>
              <td data-label="Format">
                <Form.Select aria-label={`Format, row ${at + 1}`} {...register(`rows.${at}.format`)}>
                  {FORMATS.map((one) => (
                    <option key={one} value={one}>
                      {FORMAT_LABELS[one]}
                    </option>
                  ))}
                </Form.Select>
              </td>
              <td data-label="Posts">
                <Form.Control
                  type="number"
                  min={1}
                  max={FAN_OUT_LIMITS.count}
                  aria-label={`Posts, row ${at + 1}`}
                  {...register(`rows.${at}.count`, { valueAsNumber: true })}
                />
              </td>
              <td data-label="Made from">
                <Controller
                  name={`rows.${at}.source`}
                  control={control}
                  render={({ field: { value, onChange } }) => (
                    <Form.Select
                      aria-label={`Made from, row ${at + 1}`}
                      value={sourceKey(value)}
                      onChange={({ target }) =>
                        onChange(SOURCES.find(({ source }) => sourceKey(source) === target.value)?.source ?? value)
                      }
                    >
                      {!SOURCES.some(({ source }) => sourceKey(source) === sourceKey(value)) && (
                        <option value={sourceKey(value)}>{wordsOf(value)}</option>
                      )}
                      {SOURCES.map(({ source, words }) => (
                        <option key={sourceKey(source)} value={sourceKey(source)}>
                          {words}
                        </option>
                      ))}
                    </Form.Select>
                  )}
                />
              </td>
              <td data-label="Days after">
                <Form.Control
                  type="number"
                  min={0}
                  max={FAN_OUT_LIMITS.offset}
                  aria-label={`Days after the day it begins, row ${at + 1}`}
                  {...register(`rows.${at}.offset`, { valueAsNumber: true })}
                />
              </td>
              <td data-label="Days apart">
                <Form.Control
                  type="number"
                  min={1}
                  max={FAN_OUT_LIMITS.gap}
                  aria-label={`Days from one post to the next, row ${at + 1}`}
                  {...register(`rows.${at}.gap`, { valueAsNumber: true })}
                />
              </td>
              <td data-label="">
                {at > 0 && (
                  <WordButton aria-label={`Move row ${at + 1} up`} onClick={() => move(at, at - 1)}>
                    up
                  </WordButton>
                )}{' '}
                <WordButton aria-label={`Remove row ${at + 1}`} onClick={() => remove(at)}>
                  remove
                </WordButton>
              </td>
            </tr>
          ))}
        </tbody>
      </Table>
      <p>
        <WordButton onClick={() => append({ ...NEW_ROW })}>Add a row</WordButton>
      </p>
      <FieldRefusal tied>{refusalOf('rows')}</FieldRefusal>
      {problem()}
      <Button type="submit">{fanOut.slug === '' ? 'Make the fan-out' : 'Save the fan-out'}</Button>
    </Form>
  );
}
