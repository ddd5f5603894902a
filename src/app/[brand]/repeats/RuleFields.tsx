'use client';

import Form from 'react-bootstrap/Form';
import { isYearly, MOST_WEEKS, monthWord, type RepeatRule, type YearlyRule } from '@/core/repeats/rule';
import type { Recurrence } from '@/core/rhythm/entry';
import { NTH_OPTIONS, RecurrenceFields, WEEKDAY_OPTIONS } from './RecurrenceFields';

const MONTH_OPTIONS = Array.from({ length: 12 }, (_, at) => (
  <option key={at} value={at + 1}>
    {monthWord(at + 1)}
  </option>
));

const USUAL_RULES: Record<YearlyRule['kind'], (known: readonly string[]) => YearlyRule> = {
  yearlyDate: () => ({ kind: 'yearlyDate', month: 12, day: 1 }),
  yearlyWeekday: () => ({ kind: 'yearlyWeekday', month: 11, weekday: 5, nth: -1 }),
  knownDate: (known) => ({ kind: 'knownDate', title: known[0] ?? '' }),
};

/** When a repeat comes round: week by week, month by month, or on a day of the year. */
export function RuleFields({
  rule,
  known,
  onChange,
}: {
  rule: RepeatRule;
  /** Titles of the dates to plan around. */
  known: readonly string[];
  onChange: (rule: RepeatRule) => void;
}) {
  return isYearly(rule) ? (
    <YearlyFields rule={rule} known={known} onChange={onChange} />
  ) : (
    <RecurrenceFields name="It comes" recurrence={rule as Recurrence} mostWeeks={MOST_WEEKS} onChange={onChange} />
  );
}

function YearlyFields({
  rule,
  known,
  onChange,
}: {
  rule: YearlyRule;
  known: readonly string[];
  onChange: (rule: YearlyRule) => void;
}) {
  const titles = rule.kind === 'knownDate' && !known.includes(rule.title) ? [rule.title, ...known] : known;
  return (
    <span className="recurrence">
      <Form.Select
        size="sm"
        aria-label="The day of the year"
        value={rule.kind}
        onChange={(event) => onChange(USUAL_RULES[event.target.value as YearlyRule['kind']](known))}
      >
        <option value="yearlyDate">a fixed date</option>
        <option value="yearlyWeekday">a weekday of a month</option>
        <option value="knownDate">a date to plan around</option>
      </Form.Select>
      {rule.kind === 'yearlyDate' && (
        <Form.Control
          size="sm"
          type="number"
          min={1}
          max={31}
          aria-label="Day of the month"
          value={rule.day}
          onChange={(event) => onChange({ ...rule, day: Number(event.target.value) })}
        />
      )}
      {rule.kind === 'yearlyWeekday' && (
        <>
          <Form.Select
            size="sm"
            aria-label="Which of the month"
            value={rule.nth}
            onChange={(event) => onChange({ ...rule, nth: Number(event.target.value) as 1 })}
          >
            {NTH_OPTIONS}
          </Form.Select>
          <Form.Select
            size="sm"
            aria-label="Weekday"
            value={rule.weekday}
            onChange={(event) => onChange({ ...rule, weekday: Number(event.target.value) })}
          >
            {WEEKDAY_OPTIONS}
          </Form.Select>
        </>
      )}
      {rule.kind !== 'knownDate' && (
        <Form.Select
          size="sm"
          aria-label="Month"
          value={rule.month}
          onChange={(event) => onChange({ ...rule, month: Number(event.target.value) })}
        >
          {MONTH_OPTIONS}
        </Form.Select>
      )}
      {rule.kind === 'knownDate' &&
        (titles.some(Boolean) ? (
          <Form.Select
            size="sm"
            aria-label="Date to plan around"
            value={rule.title}
            onChange={(event) => onChange({ kind: 'knownDate', title: event.target.value })}
          >
            {titles.map((title) => (
              <option key={title} value={title}>
                {title}
              </option>
            ))}
          </Form.Select>
        ) : (
          <span className="soft small-text">
            No dates to plan around are known yet. Bring them in under Settings, Known dates.
          </span>
        ))}
    </span>
  );
}
