'use client';

import { useEffect, useState, type ReactNode } from 'react';
import { Controller, useWatch } from 'react-hook-form';
import Button from 'react-bootstrap/Button';
import Form from 'react-bootstrap/Form';
import { mostAhead, REPEAT_KINDS, USUAL_AHEAD, WORK_DAYS, type RepeatKind } from '@/core/repeats/repeat';
import { nextRounds } from '@/core/repeats/rounds';
import { isYearly, readRule, type RepeatRule } from '@/core/repeats/rule';
import { FORMAT_LABELS, type Format } from '@/core/rulesheets/types';
import { addDays, weekdayOf } from '@/core/time/days';
import type { LocalDate, LocalTime } from '@/core/time/plan';
import { readTypedTime } from '@/core/time/typed';
import { counted } from '@/core/words';
import type { Repeat } from '@/usecases/repeats/reading';
import { call } from '@/ui/api';
import { DateField } from '@/ui/DateField';
import { Dialog } from '@/ui/Dialog';
import { Field } from '@/ui/Field';
import { FieldRefusal } from '@/ui/FieldRefusal';
import { shortDate } from '@/ui/format';
import { useSay } from '@/ui/messages';
import { useShell } from '@/ui/shell';
import { useSettingForm } from '../settings/useSettingForm';
import { RuleFields } from './RuleFields';

const KIND_WORDS: Record<RepeatKind, { label: string; says: string }> = {
  series: { label: 'Series', says: 'numbered, with new words each time' },
  evergreen: { label: 'Evergreen', says: 'the same words and pictures again' },
  seasonal: { label: 'Seasonal', says: 'every year for its day: last year’s words, new pictures' },
};

/** What a repeat begins with. */
interface RepeatFrom {
  title: string;
  postId: string | null;
  pieceId: string | null;
  channelId: string | null;
  format: Format | null;
  date: LocalDate | null;
  time: LocalTime | null;
}

/** Lets a post, a piece or an idea come again by itself, or changes what does. */
export function RepeatDialog({
  from,
  change,
  onDone,
  onClose,
}: {
  /** What it begins with; null for nothing, or where one is changed. */
  from: RepeatFrom | null;
  /** The repeat that is changed, from which number on: null for all that is to come. */
  change: { repeat: Repeat & { version: number }; fromNumber: number | null } | null;
  onDone?: () => void;
  onClose: () => void;
}) {
  const { brand, channels, today } = useShell();
  const say = useSay();
  const repeat = change?.repeat ?? null;
  const first = channels.find(({ id }) => id === (repeat?.channelId ?? from?.channelId)) ?? channels[0];
  const startDate = from?.date ?? today;
  const kind: RepeatKind = repeat?.kind ?? (from?.postId ? 'evergreen' : 'series');
  const kept = {
    kind,
    name: repeat?.name ?? from?.title ?? '',
    channelId: first?.id ?? '',
    format: repeat?.format ?? from?.format ?? first?.sheet.formats[0]?.format ?? ('text' as Format),
    rule: repeat?.rule ?? usualRule(kind, startDate),
    time: repeat?.time ?? from?.time ?? '10:00',
    from: repeat?.from ?? startDate,
    to: repeat?.to ?? '',
    times: repeat?.times ?? null,
    ends: repeat?.to ? 'to' : repeat?.times ? 'times' : 'never',
    ahead: repeat?.ahead ?? USUAL_AHEAD[kind],
    daysBefore: repeat?.daysBefore ?? 0,
    workDays: repeat?.workDays ?? WORK_DAYS.usual,
    firstNumber: 1,
    writtenToo: false,
  };
  const form = useSettingForm(kept, repeat?.version ?? 0);
  const { register, control, handleSubmit, setValue, save, problem, refusalOf } = form;
  const said = useWatch({ control });
  const known = useKnownTitles(brand.id);
  const channel = channels.find(({ id }) => id === said.channelId);
  const rule = said.rule as RepeatRule;
  const isSeasonal = said.kind === 'seasonal';

  function chooseKind(next: RepeatKind): void {
    setValue('kind', next);
    setValue('ahead', USUAL_AHEAD[next]);
    if ((next === 'seasonal') !== isYearly(rule)) setValue('rule', usualRule(next, startDate));
    if (next !== 'seasonal') setValue('daysBefore', 0);
  }

  const submit = handleSubmit(async ({ channelId, firstNumber, writtenToo, ends, ...fields }) => {
    const typed = {
      ...fields,
      time: readTypedTime(fields.time) ?? fields.time,
      // What ends and does not say when is refused, not endless.
      to: ends === 'to' ? fields.to : null,
      times: ends === 'times' ? fields.times || 0 : null,
      workDays: fields.kind === 'seasonal' ? fields.workDays : null,
    };
    if (change)
      return save<{ moved: number; kept: number }>(
        `/api/repeats/${change.repeat.id}`,
        { ...typed, fromNumber: change.fromNumber, writtenToo },
        ({ moved, kept: left }) => {
          say({
            text: `Changed from here on: ${counted(moved, 'post follows', 'posts follow')}, ${counted(left, 'keeps what it is', 'keep what they are')}.`,
          });
          onDone?.();
          onClose();
        },
      );
    return save<{ made: number }>(
      '/api/repeats',
      {
        ...typed,
        channelId,
        firstNumber,
        brandId: brand.id,
        postId: from?.postId ?? null,
        pieceId: from?.pieceId ?? null,
      },
      ({ made }) => {
        say({ text: `“${fields.name.trim()}” repeats: ${counted(made, 'post')} made ahead.` });
        onDone?.();
        onClose();
      },
    );
  });

  const isOfPost = from !== null && from.postId !== null;
  return (
    <Dialog
      title={titleOf(from, change)}
      size="lg"
      onClose={onClose}
      onCancel={onClose}
      onSubmit={(event) => void submit(event)}
      deeds={<Button type="submit">{change ? 'Change from here on' : 'Repeat it'}</Button>}
    >
      {!repeat && (
        <fieldset className="repeat-kinds">
          <legend className="form-label">What comes again</legend>
          {REPEAT_KINDS.map((one) => (
            <Form.Check
              key={one}
              type="radio"
              id={`repeat-kind-${one}`}
              name="repeat-kind"
              checked={said.kind === one}
              onChange={() => chooseKind(one)}
              label={
                <>
                  <b>{KIND_WORDS[one].label}</b> <span className="soft">{KIND_WORDS[one].says}</span>
                </>
              }
            />
          ))}
        </fieldset>
      )}
      <div className="repeat-fields">
        <Field
          className="repeat-name"
          id="repeat-name"
          label="Name"
          hint={said.kind === 'series' ? 'Its posts are called by it and their number.' : undefined}
          refusal={refusalOf('name')}
        >
          <Form.Control dir="auto" placeholder="A question every Friday" {...register('name')} />
        </Field>
        {!repeat && !isOfPost && (
          <Field id="repeat-channel" label="Channel" refusal={refusalOf('channelId')}>
            <Form.Select
              {...register('channelId', {
                onChange: (event: { target: { value: string } }) => {
                  const next = channels.find(({ id }) => id === event.target.value);
                  if (next && !next.sheet.formats.some((one) => one.format === said.format))
                    setValue('format', next.sheet.formats[0]!.format);
                },
              })}
            >
              {channels.map(({ id, name }) => (
                <option key={id} value={id}>
                  {name}
                </option>
              ))}
            </Form.Select>
          </Field>
        )}
        {!isOfPost && (
          <Field id="repeat-format" label="Format" refusal={refusalOf('format')}>
            <Form.Select {...register('format')}>
              {channel?.sheet.formats.map((one) => (
                <option key={one.format} value={one.format}>
                  {FORMAT_LABELS[one.format]}
                </option>
              ))}
            </Form.Select>
          </Field>
        )}
      </div>
      <div className="repeat-fields">
        <Labelled label={isSeasonal ? 'The season’s day' : 'It comes'} refusal={refusalOf('rule')}>
          <Controller
            name="rule"
            control={control}
            render={({ field: { value, onChange } }) => <RuleFields rule={value} known={known} onChange={onChange} />}
          />
        </Labelled>
        <Field id="repeat-time" label="at" refusal={refusalOf('time')}>
          <Form.Control className="figures" size="sm" htmlSize={5} {...register('time')} />
        </Field>
      </div>
      {isSeasonal && (
        <div className="repeat-fields">
          <Field
            id="repeat-before"
            label="Published so many days before"
            hint="0 for on the day itself"
            refusal={refusalOf('daysBefore')}
          >
            <Form.Control type="number" min={0} max={60} {...register('daysBefore', { valueAsNumber: true })} />
          </Field>
          <Field
            id="repeat-work"
            label="Work begins so many days before that"
            hint="a step on the desk, 30 to 90 days"
            refusal={refusalOf('workDays')}
          >
            <Form.Control
              type="number"
              min={WORK_DAYS.least}
              max={WORK_DAYS.most}
              {...register('workDays', { valueAsNumber: true })}
            />
          </Field>
        </div>
      )}
      <div className="repeat-fields">
        <Labelled label="From" refusal={refusalOf('from')}>
          <Controller
            name="from"
            control={control}
            render={({ field: { value, onChange } }) => (
              <DateField label="First day" value={value} onChange={onChange} />
            )}
          />
        </Labelled>
        <Field id="repeat-ends" label="Ends">
          <Form.Select {...register('ends')}>
            <option value="never">never</option>
            <option value="to">on a day</option>
            <option value="times">after so many times</option>
          </Form.Select>
        </Field>
        {said.ends === 'to' && (
          <Labelled label="Last day" refusal={refusalOf('to')}>
            <Controller
              name="to"
              control={control}
              render={({ field: { value, onChange } }) => (
                <DateField label="Last day" value={value} onChange={onChange} />
              )}
            />
          </Labelled>
        )}
        {said.ends === 'times' && (
          <Field id="repeat-times" label="Times in all" refusal={refusalOf('times')}>
            <Form.Control type="number" min={1} {...register('times', { valueAsNumber: true })} />
          </Field>
        )}
        <Field id="repeat-ahead" label="Kept ahead" refusal={refusalOf('ahead')}>
          <Form.Control type="number" min={1} max={mostAhead(rule)} {...register('ahead', { valueAsNumber: true })} />
        </Field>
        {!repeat && said.kind === 'series' && (
          <Field
            id="repeat-first"
            label={isOfPost ? 'This post is number' : 'First number'}
            refusal={refusalOf('firstNumber')}
          >
            <Form.Control type="number" min={1} {...register('firstNumber', { valueAsNumber: true })} />
          </Field>
        )}
      </div>
      <NextDays said={said} after={nextAfter(from, today)} />
      {repeat && (
        <Form.Check
          type="checkbox"
          id="repeat-written"
          label="Posts that somebody wrote move as well"
          {...register('writtenToo')}
        />
      )}
      {problem()}
    </Dialog>
  );
}

const titleOf = (from: RepeatFrom | null, change: { repeat: Repeat; fromNumber: number | null } | null): string =>
  change
    ? change.fromNumber === null
      ? `Change “${change.repeat.name}”`
      : `Change “${change.repeat.name}” from number ${change.fromNumber} on`
    : from
      ? `Repeat “${from.title}”`
      : 'Start a repeat';

/** The rule that a repeat has where nothing else is said: by the weekday, or the date, of what it begins with. */
function usualRule(kind: RepeatKind, date: LocalDate): RepeatRule {
  if (kind === 'seasonal') return { kind: 'yearlyDate', month: Number(date.slice(5, 7)), day: Number(date.slice(8)) };
  return { kind: 'weekly', weekday: weekdayOf(date), every: kind === 'series' ? 1 : 26 };
}

/** The day after which the first new post lies: that of the post it begins with, or yesterday. */
const nextAfter = (from: RepeatFrom | null, today: LocalDate): LocalDate => {
  const yesterday = addDays(today, -1);
  return from?.postId && from.date !== null && from.date > yesterday ? from.date : yesterday;
};

/** A label above what is more than one control. */
const Labelled = ({
  label,
  refusal,
  children,
}: {
  label: string;
  refusal?: string | undefined;
  children: ReactNode;
}) => (
  <div>
    <div className="form-label">{label}</div>
    {children}
    <FieldRefusal>{refusal}</FieldRefusal>
  </div>
);

/** The next days that a rule gives, as one types. */
function NextDays({
  said,
  after,
}: {
  said: { rule?: unknown; from?: string; daysBefore?: number; ahead?: number };
  after: LocalDate;
}) {
  const rule = said.rule as RepeatRule;
  if (!said.from || rule.kind === 'knownDate' || !readRule(rule).ok) return null;
  const rounds = nextRounds(
    { rule, from: said.from, to: null, daysBefore: said.daysBefore || 0 },
    { round: after, day: after },
    3,
  );
  return (
    <p className="soft small-text" aria-live="polite">
      Next: {rounds.map(({ day }) => `${shortDate(day)} ${day.slice(0, 4)}`).join(', ')}
    </p>
  );
}

function useKnownTitles(brandId: string): readonly string[] {
  const [titles, setTitles] = useState<readonly string[]>([]);
  useEffect(() => {
    let isHere = true;
    void call<string[]>('GET', `/api/repeats?brand=${brandId}`).then((answer) => {
      if (isHere && answer.kind === 'done') setTitles(answer.value);
    });
    return () => {
      isHere = false;
    };
  }, [brandId]);
  return titles;
}
