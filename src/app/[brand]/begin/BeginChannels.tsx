'use client';

import { useState } from 'react';
import Form from 'react-bootstrap/Form';
import { freeCallSign, freeColour } from '@/core/brands/newChannel';
import { FORMAT_LABELS, type RuleSheet } from '@/core/rulesheets/types';
import { slugOf } from '@/core/text/slug';
import { call, type Answer } from '@/ui/api';
import { CallSign } from '@/ui/CallSign';
import { useShell } from '@/ui/shell';
import { BeginDeeds } from './BeginDeeds';
import { useSteps } from './useSteps';
import { Field } from '@/ui/Field';

interface Chosen {
  sheetId: string;
  name: string;
  account: string;
}

/** Channels by the rule sheets that are there, or by a copy of one under a name of its own. */
export function BeginChannels({
  sheets,
  present,
}: {
  sheets: readonly { id: string; rules: RuleSheet }[];
  present: readonly { name: string; callSign: string; color: string; slug: string }[];
}) {
  const { brand } = useShell();
  const { goOn, problem, isBusy } = useSteps('people');
  const [chosen, setChosen] = useState<readonly Chosen[]>([]);
  const [own, setOwn] = useState({ name: '', like: sheets[0]?.id ?? '' });

  const change = (sheetId: string, part: Partial<Chosen>) =>
    setChosen(chosen.map((one) => (one.sheetId === sheetId ? { ...one, ...part } : one)));

  function saves() {
    const channels = [...present];
    const add = (name: string, account: string, sheetId: () => Promise<Answer<{ id: string }>>) => {
      const callSign = freeCallSign(
        name,
        channels.map((one) => one.callSign),
      );
      const color = freeColour(channels);
      channels.push({ name, callSign, color, slug: '' });
      return {
        name: name || 'A channel',
        save: async (): Promise<Answer<unknown>> => {
          const sheet = await sheetId();
          if (sheet.kind !== 'done') return sheet;
          const fields = { id: null, name, callSign, color, account, aimDays: 14, ruleSheetId: sheet.value.id };
          return call('POST', '/api/settings/channels', { brandId: brand.id, ...fields });
        },
      };
    };
    const like = sheets.find(({ id }) => id === own.like);
    return [
      ...chosen.map(({ sheetId, name, account }) =>
        add(name.trim(), account, () => Promise.resolve({ kind: 'done' as const, value: { id: sheetId } })),
      ),
      ...(own.name.trim() !== '' && like
        ? [
            add(own.name.trim(), '', () =>
              call<{ id: string }>('POST', '/api/settings/sheets', { id: null, sheet: copyOf(like.rules, own.name) }),
            ),
          ]
        : []),
    ];
  }
  const count = chosen.length + (own.name.trim() === '' ? 0 : 1);

  return (
    <Form
      onSubmit={(event) => {
        event.preventDefault();
        void goOn(saves());
      }}
      noValidate
    >
      {present.length > 0 && (
        <p>
          There already:{' '}
          {present.map(({ callSign, color, name }) => (
            <span key={callSign} className="begin-present">
              <CallSign sign={callSign} color={color} name={name} /> {name}
            </span>
          ))}
        </p>
      )}
      <ul className="begin-list">
        {sheets.map(({ id, rules }) => {
          const one = chosen.find(({ sheetId }) => sheetId === id);
          return (
            <li key={id}>
              <Form.Check
                id={`sheet-${id}`}
                label={
                  <>
                    <b dir="auto">{rules.name}</b> <span className="soft">{rules.about}</span>
                  </>
                }
                checked={one !== undefined}
                onChange={(event) =>
                  setChosen(
                    event.target.checked
                      ? [...chosen, { sheetId: id, name: rules.name, account: '' }]
                      : chosen.filter(({ sheetId }) => sheetId !== id),
                  )
                }
              />
              <span className="soft small-text begin-formats">
                {rules.formats.map(({ format }) => FORMAT_LABELS[format]).join(', ')}
              </span>
              {one && (
                <span className="begin-fields">
                  <Form.Control
                    size="sm"
                    dir="auto"
                    aria-label={`Name of the channel on ${rules.name}`}
                    value={one.name}
                    onChange={(event) => change(id, { name: event.target.value })}
                  />
                  <Form.Control
                    size="sm"
                    dir="auto"
                    aria-label={`Account on ${rules.name}`}
                    placeholder="@account"
                    value={one.account}
                    onChange={(event) => change(id, { account: event.target.value })}
                  />
                </span>
              )}
            </li>
          );
        })}
        <li>
          <Field id="own-network" label="Another network" className="begin-own">
            <Form.Control
              size="sm"
              dir="auto"
              value={own.name}
              placeholder="Its name"
              onChange={(event) => setOwn({ ...own, name: event.target.value })}
            />
            <label htmlFor="own-like" className="soft">
              with the rules of
            </label>
            <Form.Select
              id="own-like"
              size="sm"
              value={own.like}
              onChange={(event) => setOwn({ ...own, like: event.target.value })}
            >
              {sheets.map(({ id, rules }) => (
                <option key={id} value={id}>
                  {rules.name}
                </option>
              ))}
            </Form.Select>
            <span className="soft small-text">changed later under Settings, Rule sheets</span>
          </Field>
        </li>
      </ul>
      <p className="soft small-text">
        Posts are posted by hand at first: Bimlo says when, and has everything ready to copy.
      </p>
      <BeginDeeds
        label={count === 0 ? 'Next: people' : `Add ${count === 1 ? 'this channel' : `these ${count} channels`}`}
        next={count === 0 ? null : 'people'}
        {...{ problem, isBusy }}
      />
    </Form>
  );
}

/** The rules of one network for another that is nowhere yet. */
const copyOf = (rules: RuleSheet, name: string): RuleSheet => ({
  ...rules,
  name: name.trim(),
  slug: slugOf(name) || 'network',
  automatic: false,
});
