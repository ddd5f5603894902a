import { formatRule } from '../rulesheets/types';
import type { DraftedRow, FanOutChannel, FanOutGround } from './ground';
import type { FanOutRow } from './fanOut';

/** The channel a row makes its posts for; or, where it makes none, what becomes of it. */
export function askedOf(
  row: FanOutRow,
  at: number,
  { channels, chosen, on, existing }: Pick<FanOutGround, 'channels' | 'chosen' | 'on' | 'existing'>,
):
  { row: DraftedRow } | { channel: FanOutChannel; base: Omit<DraftedRow, 'isOn' | 'makes' | 'note'>; already: string } {
  const able = channels.filter(({ sheet }) => sheet.kind === row.network && formatRule(sheet, row.format));
  const channel = able.find(({ id }) => id === chosen[at]) ?? able[0];
  const base = { ...row, channelIds: able.map(({ id }) => id), channelId: channel?.id ?? null };
  if (!channel) return { row: { ...base, isOn: false, makes: 0, note: 'no channel of this brand takes it' } };
  const has = existing[`${channel.id}:${row.format}`] ?? 0;
  const isOn = on === null ? has === 0 : on.includes(at);
  const already = has > 0 ? `${channel.name} has ${has === 1 ? 'one' : has} of this piece already` : '';
  return isOn ? { channel, base, already } : { row: { ...base, isOn, makes: 0, note: already } };
}
