'use client';

import { DISTANCE_MINUTES } from '@/core/rhythm/window';
import { rulesWords, type RulesOutcome } from '@/core/posts/outcome';
import { useState } from 'react';
import { useWatch } from 'react-hook-form';
import { useRouter } from 'next/navigation';
import Button from 'react-bootstrap/Button';
import { readChannelColour } from '@/core/brands/colours';
import { LEAD_MINUTES } from '@/core/notices/notice';
import { call, problemOf } from '@/ui/api';
import { CallSign } from '@/ui/CallSign';
import { useSay } from '@/ui/messages';
import { useShell } from '@/ui/shell';
import { useSettingForm } from '../useSettingForm';
import { WordButton } from '@/ui/WordButton';
import Table from 'react-bootstrap/Table';
import { FieldRefusal } from '@/ui/FieldRefusal';
import { TermHint } from '@/ui/TermHint';

interface ChannelFields {
  id: string | null;
  name: string;
  callSign: string;
  color: string;
  account: string;
  aimDays: number;
  leadMinutes: number;
  distanceMinutes: number;
  ruleSheetId: string;
}

/** Every channel as a row that can be changed, and an empty row for a new one. */
export function ChannelSettings({
  channels,
  sheets,
}: {
  channels: readonly (ChannelFields & { id: string; version: number; sends: boolean })[];
  sheets: readonly { id: string; name: string }[];
}) {
  const fresh: ChannelFields = {
    id: null,
    name: '',
    callSign: '',
    color: '#3B6E7A',
    account: '',
    aimDays: 14,
    leadMinutes: 0,
    distanceMinutes: DISTANCE_MINUTES.usual,
    ruleSheetId: sheets[0]?.id ?? '',
  };
  return (
    <>
      <datalist id="lead-minutes">
        {LEAD_MINUTES.offered.map((minutes) => (
          <option key={minutes} value={minutes} />
        ))}
      </datalist>
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
            <th scope="col" title="Minutes that a minute chosen in a window keeps from the channel’s other posts">
              Apart, minutes
            </th>
            <th scope="col" title="How long before its time people are told of a post that they post by hand">
              By hand: told before, minutes
            </th>
            <th scope="col">
              <span className="visually-hidden">Actions</span>
            </th>
          </tr>
        </thead>
        <tbody>
          {channels.map(({ version, sends, ...channel }) => (
            <ChannelRow
              key={channel.id}
              version={version}
              sends={sends}
              channel={channel}
              others={channels.filter(({ id }) => id !== channel.id)}
              sheets={sheets}
            />
          ))}
          <ChannelRow
            key={`new ${channels.length}`}
            version={0}
            sends={false}
            channel={fresh}
            others={channels}
            sheets={sheets}
          />
        </tbody>
      </Table>
    </>
  );
}

function ChannelRow({
  version,
  sends,
  channel,
  others,
  sheets,
}: {
  version: number;
  /** Bimlo sends what is posted on it. */
  sends: boolean;
  channel: ChannelFields;
  others: readonly ChannelFields[];
  sheets: readonly { id: string; name: string }[];
}) {
  const { brand } = useShell();
  const router = useRouter();
  const say = useSay();
  const { register, control, handleSubmit, save, problem, hasProblem } = useSettingForm(channel, version);
  const fields = { ...channel, ...useWatch({ control }) };
  const [notArchived, setNotArchived] = useState<string | null>(null);
  const isNew = channel.id === null;
  const isChanged = JSON.stringify(fields) !== JSON.stringify(channel);
  const colour = readChannelColour(fields.color, others);
  const label = (what: string) => `${what} of ${isNew ? 'the new channel' : channel.name}`;
  const formId = `channel-${channel.id ?? 'new'}`;

  const submit = handleSubmit((typed) =>
    save<Partial<RulesOutcome>>('/api/settings/channels', { brandId: brand.id, ...typed }, (outcome) => {
      const name = typed.name.trim();
      say({ text: [isNew ? `Made ${name}.` : `Saved ${name}.`, ...rulesWords(outcome)].join(' ') });
    }),
  );

  async function archive() {
    const answer = await call('DELETE', '/api/settings/channels', { brandId: brand.id, id: channel.id });
    setNotArchived(problemOf(answer));
    if (answer.kind !== 'done') return;
    say({ text: `Archived ${channel.name}. Its posts are kept.` });
    router.refresh();
  }

  return (
    <>
      <tr>
        <td data-label="Call sign">
          <form id={formId} onSubmit={(event) => void submit(event)} />
          <input
            dir="auto"
            form={formId}
            size={3}
            maxLength={2}
            aria-label={label('Call sign')}
            {...register('callSign')}
          />{' '}
          <CallSign sign={fields.callSign.toUpperCase() || '··'} color={fields.color} />
        </td>
        <td data-label="Name">
          <input
            dir="auto"
            form={formId}
            aria-label={label('Name')}
            placeholder={isNew ? 'New channel' : ''}
            {...register('name')}
          />
        </td>
        <td data-label="Account">
          <input dir="auto" form={formId} aria-label={label('Account')} placeholder="@name" {...register('account')} />
        </td>
        <td data-label="Rule sheet">
          <select form={formId} aria-label={label('Rule sheet')} {...register('ruleSheetId')}>
            {sheets.map(({ id, name }) => (
              <option key={id} value={id}>
                {name}
              </option>
            ))}
          </select>
        </td>
        <td data-label="Colour">
          <input
            form={formId}
            type="color"
            aria-label={label('Colour')}
            {...register('color', { setValueAs: (colour: string) => colour.toUpperCase() })}
          />
        </td>
        <td data-label="Filled ahead, days">
          <input
            form={formId}
            type="number"
            min={1}
            max={90}
            aria-label={label('Days filled ahead')}
            {...register('aimDays', { valueAsNumber: true })}
          />
        </td>
        <td data-label="Apart, minutes">
          <input
            form={formId}
            type="number"
            min={DISTANCE_MINUTES.least}
            max={DISTANCE_MINUTES.most}
            aria-label={label('Minutes apart')}
            {...register('distanceMinutes', { valueAsNumber: true })}
          />
        </td>
        <td data-label="By hand: told before, minutes">
          {sends ? (
            <span className="soft small-text">Bimlo sends</span>
          ) : (
            <input
              form={formId}
              type="number"
              min={LEAD_MINUTES.least}
              max={LEAD_MINUTES.most}
              list="lead-minutes"
              aria-label={label('Minutes told before')}
              {...register('leadMinutes', { valueAsNumber: true })}
            />
          )}
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
      {(hasProblem || notArchived || (isChanged && !colour.ok)) && (
        <tr>
          <td colSpan={8}>
            {problem()}
            <FieldRefusal>{notArchived ?? (isChanged && !colour.ok ? colour.refusal.message : null)}</FieldRefusal>
          </td>
        </tr>
      )}
    </>
  );
}
