'use client';

import { rulesWords, type RulesOutcome } from '@/core/posts/outcome';
import { useState, type FormEvent } from 'react';
import { useRouter } from 'next/navigation';
import Button from 'react-bootstrap/Button';
import { readChannelColour } from '@/core/brands/colours';
import { call, problemOf } from '@/ui/api';
import { CallSign } from '@/ui/CallSign';
import { useSay } from '@/ui/messages';
import { useShell } from '@/ui/shell';
import { Problem } from '../Problem';
import { useSetting } from '../useSetting';
import { WordButton } from '@/ui/WordButton';
import Table from 'react-bootstrap/Table';
import { TermHint } from '@/ui/TermHint';

interface ChannelFields {
  id: string | null;
  name: string;
  callSign: string;
  color: string;
  account: string;
  aimDays: number;
  ruleSheetId: string;
}

/** Every channel as a row that can be changed, and an empty row for a new one. */
export function ChannelSettings({
  channels,
  sheets,
}: {
  channels: readonly (ChannelFields & { id: string; version: number })[];
  sheets: readonly { id: string; name: string }[];
}) {
  const fresh: ChannelFields = {
    id: null,
    name: '',
    callSign: '',
    color: '#3B6E7A',
    account: '',
    aimDays: 14,
    ruleSheetId: sheets[0]?.id ?? '',
  };
  return (
    <Table bsPrefix="settings-table">
      <thead>
        <tr>
          <th scope="col">
            <TermHint term="callSign">Call sign</TermHint>
          </th>
          <th scope="col">Name</th>
          <th scope="col">Account</th>
          <th scope="col">Rule sheet</th>
          <th scope="col">Colour</th>
          <th scope="col">Filled ahead, days</th>
          <th scope="col">
            <span className="visually-hidden">Actions</span>
          </th>
        </tr>
      </thead>
      <tbody>
        {channels.map(({ version, ...channel }) => (
          <ChannelRow
            key={channel.id}
            version={version}
            channel={channel}
            others={channels.filter(({ id }) => id !== channel.id)}
            sheets={sheets}
          />
        ))}
        <ChannelRow key={`new ${channels.length}`} version={0} channel={fresh} others={channels} sheets={sheets} />
      </tbody>
    </Table>
  );
}

function ChannelRow({
  version,
  channel,
  others,
  sheets,
}: {
  version: number;
  channel: ChannelFields;
  others: readonly ChannelFields[];
  sheets: readonly { id: string; name: string }[];
}) {
  const { brand } = useShell();
  const router = useRouter();
  const say = useSay();
  const [fields, setFields] = useState(channel);
  const setting = useSetting(version);
  const [problem, setProblem] = useState<string | null>(null);
  const isNew = channel.id === null;
  const isChanged = JSON.stringify(fields) !== JSON.stringify(channel);
  const set = (part: Partial<ChannelFields>) => setFields({ ...fields, ...part });
  const colour = readChannelColour(fields.color, others);
  const label = (what: string) => `${what} of ${isNew ? 'the new channel' : channel.name}`;
  const formId = `channel-${channel.id ?? 'new'}`;

  async function save(event: FormEvent) {
    event.preventDefault();
    const answer = await setting.save<Partial<RulesOutcome>>('POST', '/api/settings/channels', {
      brandId: brand.id,
      ...fields,
    });
    setProblem(null);
    if (answer.kind !== 'done') return;
    say({
      text: [isNew ? `Made ${fields.name.trim()}.` : `Saved ${fields.name.trim()}.`, ...rulesWords(answer.value)].join(
        ' ',
      ),
    });
  }

  async function archive() {
    const answer = await call('DELETE', '/api/settings/channels', { brandId: brand.id, id: channel.id });
    setProblem(problemOf(answer));
    if (answer.kind !== 'done') return;
    say({ text: `Archived ${channel.name}. Its posts are kept.` });
    router.refresh();
  }

  return (
    <>
      <tr>
        <td>
          <form id={formId} onSubmit={(event) => void save(event)} />
          <input
            form={formId}
            size={3}
            maxLength={2}
            aria-label={label('Call sign')}
            value={fields.callSign}
            onChange={(event) => set({ callSign: event.target.value })}
          />{' '}
          <CallSign sign={fields.callSign.toUpperCase() || '··'} color={fields.color} />
        </td>
        <td>
          <input
            form={formId}
            aria-label={label('Name')}
            value={fields.name}
            placeholder={isNew ? 'New channel' : ''}
            onChange={(event) => set({ name: event.target.value })}
          />
        </td>
        <td>
          <input
            form={formId}
            aria-label={label('Account')}
            value={fields.account}
            placeholder="@name"
            onChange={(event) => set({ account: event.target.value })}
          />
        </td>
        <td>
          <select
            form={formId}
            aria-label={label('Rule sheet')}
            value={fields.ruleSheetId}
            onChange={(event) => set({ ruleSheetId: event.target.value })}
          >
            {sheets.map(({ id, name }) => (
              <option key={id} value={id}>
                {name}
              </option>
            ))}
          </select>
        </td>
        <td>
          <input
            form={formId}
            type="color"
            aria-label={label('Colour')}
            value={fields.color}
            onChange={(event) => set({ color: event.target.value.toUpperCase() })}
          />
        </td>
        <td>
          <input
            form={formId}
            type="number"
            min={1}
            max={90}
            aria-label={label('Days filled ahead')}
            value={fields.aimDays}
            onChange={(event) => set({ aimDays: Number(event.target.value) })}
          />
        </td>
        <td className="row-deeds">
          {(isNew || isChanged) && (
            <Button form={formId} type="submit" size="sm" variant={isChanged ? 'primary' : 'outline'}>
              {isNew ? 'Make it' : 'Save'}
            </Button>
          )}
          {!isNew && (
            <WordButton className="soft" onClick={() => void archive()} aria-label={`Archive ${channel.name}`}>
              Archive
            </WordButton>
          )}
        </td>
      </tr>
      {setting.problem !== null && (
        <tr>
          <td colSpan={7}>
            <Problem of={setting} onTheirs={() => setFields(channel)} />
          </td>
        </tr>
      )}
      {(problem || (isChanged && !colour.ok)) && (
        <tr>
          <td colSpan={7} className="field-refusal" role="alert">
            {problem ?? (colour.ok ? '' : colour.refusal.message)}
          </td>
        </tr>
      )}
    </>
  );
}
