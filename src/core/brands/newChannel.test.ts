import { describe, expect, it } from 'vitest';
import { SHIPPED_RULE_SHEETS } from '../rulesheets/shipped';
import { readChannelColour } from './colours';
import { CHANNEL_COLOURS, freeCallSign, freeColour } from './newChannel';

describe('what a new channel is given', () => {
  it('is a colour that shows and is told apart from all others, as long as there is one', () => {
    const channels: { name: string; color: string }[] = [];
    for (let count = 0; count < CHANNEL_COLOURS.length; count++) {
      const color = freeColour(channels);
      expect(readChannelColour(color, channels).ok).toBe(true);
      channels.push({ name: color, color });
    }
    expect(freeColour(channels)).toBe(CHANNEL_COLOURS[0]);
  });

  it('is a call sign of its own, of its name where that can be', () => {
    const taken: string[] = [];
    for (const { name } of SHIPPED_RULE_SHEETS) taken.push(freeCallSign(name, taken));
    expect(new Set(taken).size).toBe(SHIPPED_RULE_SHEETS.length);
    for (const sign of taken) expect(sign).toMatch(/^[A-Z]{2}$/);
    expect(freeCallSign('Été', [])).toBe('ET');
    expect(freeCallSign('Été', ['ET'])).toBe('EE');
    expect(freeCallSign('日本', [])).toBe('AA');
    expect(freeCallSign('B', ['BA'])).toBe('BB');
  });
});
