'use client';

import { rulesWords, type RulesOutcome } from '@/core/posts/outcome';
import { slugOf } from '@/core/text/slug';
import { answers } from '@/core/delivery/carrier';
import { useMemo, useState, type FormEvent } from 'react';
import { useRouter } from 'next/navigation';
import Button from 'react-bootstrap/Button';
import { fitTexts } from '@/core/captions/compose';
import { WRITTEN_LABELS } from '@/core/posts/written';
import { readRuleSheet } from '@/core/rulesheets/read';
import {
  FORMAT_LABELS,
  NETWORK_KIND_LABELS,
  NETWORK_KINDS,
  TEXT_FIELDS,
  type CountUnit,
  type FormatRule,
  type NetworkKind,
  type RuleSheet,
  type TextFieldName,
  type TextFieldRule,
} from '@/core/rulesheets/types';
import { Marked } from '@/ui/MarkedText';
import { useSay } from '@/ui/messages';
import { useShell } from '@/ui/shell';
import { Problem } from '../Problem';
import { useSetting } from '../useSetting';
import { FormatRules } from './FormatRules';
import { Whole } from './Whole';
import { useUnsaved } from '@/ui/LeaveGuard';
import { FieldRefusal } from '@/ui/FieldRefusal';

const UNIT_LABELS: Record<CountUnit, string> = {
  grapheme: 'characters',
  codePoint: 'Unicode code points',
  utf16: 'UTF-16 units',
};

/** What a text is taken for until its limits are typed. */
const NEW_FIELD: Omit<TextFieldRule, 'name' | 'label'> = {
  limit: 100,
  required: false,
  unit: 'grapheme',
  wideWeight: 1,
  linkLength: null,
  fold: null,
  parts: ['text'],
};

/** What is counted before anything is pasted: long enough to be cut off, with a link and a wide character. */
const EXAMPLE = `The telescope stays open until midnight on Friday, and the first hour is for children. Bring a coat: the dome is not heated, and neither is the wait. What would you like to see first? 🔭

https://example.org/friday`;

/** A rule sheet to be changed, with a caption pasted beside it to try it on. */
export function SheetEditor({
  id,
  sheet: kept,
  version,
  channels,
}: {
  /** Null makes a new one. */
  id: string | null;
  sheet: RuleSheet;
  version: number;
  channels: number;
}) {
  const { brand } = useShell();
  const router = useRouter();
  const say = useSay();
  const [sheet, setSheet] = useState(kept);
  const [pasted, setPasted] = useState(EXAMPLE);
  const setting = useSetting(version);
  useUnsaved(JSON.stringify(sheet) !== JSON.stringify(kept));
  const isChanged = id === null || JSON.stringify(sheet) !== JSON.stringify(kept);
  const check = readRuleSheet(sheet);
  const set = (part: Partial<RuleSheet>) => setSheet({ ...sheet, ...part });
  const setField = (name: string, part: Partial<TextFieldRule>) =>
    set({ fields: sheet.fields.map((field) => (field.name === name ? { ...field, ...part } : field)) });
  const hasField = (name: TextFieldName, isThere: boolean) =>
    set({
      fields: TEXT_FIELDS.flatMap((one) => {
        const field = sheet.fields.find((known) => known.name === one);
        if (one !== name) return field ? [field] : [];
        return isThere ? [field ?? { ...NEW_FIELD, name, label: WRITTEN_LABELS[name] }] : [];
      }),
    });
  const setFormat = (format: FormatRule['format'], part: Partial<FormatRule> | null) =>
    set({
      formats:
        part === null
          ? sheet.formats.filter((rule) => rule.format !== format)
          : sheet.formats.some((rule) => rule.format === format)
            ? sheet.formats.map((rule) => (rule.format === format ? { ...rule, ...part } : rule))
            : [...sheet.formats, { format, picturesMin: 0, picturesMax: 1 }],
    });

  async function save(event: FormEvent) {
    event.preventDefault();
    const answer = await setting.save<{ id: string } & Partial<RulesOutcome>>('POST', '/api/settings/sheets', {
      id,
      sheet,
    });
    if (answer.kind !== 'done') return;
    const saved = id === null ? `Made the rule sheet ${sheet.name}.` : `Saved. Channels that use it now: ${channels}.`;
    say({ text: [saved, ...rulesWords(answer.value)].join(' ') });
    router.push(`/${brand.slug}/settings/sheets?sheet=${answer.value.id}`);
  }

  return (
    <form className="two-columns" onSubmit={(event) => void save(event)}>
      <section className="sheet-fields">
        <p>
          <label>
            Name{' '}
            <input
              dir="auto"
              value={sheet.name}
              onChange={(event) =>
                set({ name: event.target.value, ...(id === null ? { slug: slugOf(event.target.value) } : {}) })
              }
            />
          </label>{' '}
          <label>
            Kind{' '}
            <select value={sheet.kind} onChange={(event) => set({ kind: event.target.value as NetworkKind })}>
              {NETWORK_KINDS.map((kind) => (
                <option key={kind} value={kind}>
                  {NETWORK_KIND_LABELS[kind]}
                </option>
              ))}
            </select>
          </label>{' '}
          <label>
            What it is, in a few words{' '}
            <input dir="auto" value={sheet.about} onChange={(event) => set({ about: event.target.value })} />
          </label>
        </p>
        <p>
          <label>
            <input
              type="checkbox"
              checked={sheet.automatic}
              disabled={!answers(sheet.slug)}
              onChange={(event) => set({ automatic: event.target.checked })}
            />{' '}
            {answers(sheet.slug)
              ? 'takes posts automatically'
              : 'posted by hand: no network answers under this short name'}
          </label>{' '}
          <label>
            <input
              type="checkbox"
              checked={sheet.linksClickable}
              onChange={(event) => set({ linksClickable: event.target.checked })}
            />{' '}
            links can be clicked
          </label>
        </p>
        {sheet.fields.map((field) => (
          <fieldset key={field.name}>
            <legend>
              {field.name === 'caption' ? 'Main text' : WRITTEN_LABELS[field.name]}
              {field.formats && (
                <span className="soft"> of {field.formats.map((format) => FORMAT_LABELS[format]).join(', ')}</span>
              )}
            </legend>
            <label>
              Label{' '}
              <input
                dir="auto"
                size={12}
                value={field.label}
                onChange={(event) => setField(field.name, { label: event.target.value })}
              />
            </label>
            <label>
              takes{' '}
              <Whole
                value={field.limit}
                label={`Limit of ${field.label}`}
                onChange={(limit) => setField(field.name, { limit: limit ?? 0 })}
              />{' '}
              <select
                aria-label={`What ${field.label} is counted in`}
                value={field.unit}
                onChange={(event) => setField(field.name, { unit: event.target.value as CountUnit })}
              >
                {Object.entries(UNIT_LABELS).map(([unit, label]) => (
                  <option key={unit} value={unit}>
                    {label}
                  </option>
                ))}
              </select>
            </label>
            <label>
              wide characters count as{' '}
              <select
                value={field.wideWeight}
                onChange={(event) => setField(field.name, { wideWeight: Number(event.target.value) as 1 | 2 })}
              >
                <option value={1}>1</option>
                <option value={2}>2</option>
              </select>
            </label>
            <label>
              a link counts as{' '}
              <Whole
                value={field.linkLength}
                label="What a link counts as, empty for its length"
                empty="its length"
                onChange={(linkLength) => setField(field.name, { linkLength })}
              />
            </label>
            <label>
              cut off after{' '}
              <Whole
                value={field.fold?.units ?? null}
                label="Cut off after, in the same units; empty for never"
                empty="none"
                onChange={(units) => setField(field.name, { fold: foldOf(units, field.fold?.lines ?? null) })}
              />{' '}
              or{' '}
              <Whole
                value={field.fold?.lines ?? null}
                label="Cut off after, in lines; empty for never"
                empty="none"
                onChange={(lines) => setField(field.name, { fold: foldOf(field.fold?.units ?? null, lines) })}
              />{' '}
              lines
            </label>
          </fieldset>
        ))}
        <p className="sheet-choices">
          Texts beside the main one:{' '}
          {TEXT_FIELDS.filter((name) => name !== 'caption').map((name) => (
            <label key={name}>
              <input
                type="checkbox"
                checked={sheet.fields.some((field) => field.name === name)}
                onChange={(event) => hasField(name, event.target.checked)}
              />{' '}
              {WRITTEN_LABELS[name]}{' '}
            </label>
          ))}
        </p>
        <p>
          <label>
            Hashtags, at most{' '}
            <Whole
              value={sheet.hashtagLimit}
              label="Hashtags at most; empty for no limit"
              empty="no limit"
              onChange={(hashtagLimit) => set({ hashtagLimit })}
            />
          </label>{' '}
          <label>
            A picture has at most{' '}
            <Whole
              value={Math.round(sheet.pictureMaxBytes / 1_000_000)}
              label="Largest picture in MB"
              onChange={(megabytes) => set({ pictureMaxBytes: (megabytes ?? 0) * 1_000_000 })}
            />{' '}
            MB
          </label>
        </p>
        <FormatRules formats={sheet.formats} onSet={setFormat} />
        {check.ok ? (
          <Problem of={setting} onTheirs={() => setSheet(kept)} />
        ) : (
          isChanged && <FieldRefusal>{check.refusal.message}</FieldRefusal>
        )}
        <Button type="submit" disabled={!isChanged || !check.ok}>
          {id === null ? 'Make this rule sheet' : `Save for ${channels === 1 ? '1 channel' : `${channels} channels`}`}
        </Button>
      </section>
      <section>
        <h2>Try it</h2>
        <p className="soft">This is how the sheet counts a caption. Paste your own.</p>
        <textarea
          dir="auto"
          className="try-text"
          rows={8}
          aria-label="Caption to try"
          value={pasted}
          onChange={(event) => setPasted(event.target.value)}
        />
        {check.ok && pasted !== '' && <Tried sheet={sheet} text={pasted} />}
      </section>
    </form>
  );
}

function Tried({ sheet, text }: { sheet: RuleSheet; text: string }) {
  const fit = useMemo(
    () =>
      fitTexts({ headline: '', caption: text, hashtags: '', link: '' }, sheet, sheet.formats[0]?.format ?? 'text').find(
        ({ rule }) => rule.name === 'caption',
      ),
    [sheet, text],
  );
  if (!fit) return null;
  return (
    <>
      <p>
        <b className="figures">{fit.count}</b> of {fit.rule.limit},{' '}
        <span className={fit.left < 0 ? 'wrong' : ''}>{fit.left < 0 ? `${-fit.left} over` : `${fit.left} left`}</span>
      </p>
      <div className="tried">
        <Marked text={fit.text} foldAt={fit.foldAt} overAt={fit.overAt} />
      </div>
    </>
  );
}

const foldOf = (units: number | null, lines: number | null): TextFieldRule['fold'] =>
  units === null && lines === null ? null : { units, lines };
