import { spawnSync } from 'node:child_process';
import { describe, expect, it } from 'vitest';

const repurpose = (input: string | Buffer, ...words: string[]) => {
  const { status, stdout, stderr } = spawnSync('node_modules/.bin/tsx', ['scripts/repurpose.ts', ...words], {
    input,
    encoding: 'utf8',
  });
  return { status, stdout, stderr };
};
const TEXT = `# Fog on the pier

The ferry waits in the harbour until the fog has gone from the pier and the bell buoy. Twelve sailings were late in October because of fog. Why does the captain trust the bell more than the screen?

A bell needs no current, and its sound comes from where the buoy is. Passengers who stand on deck hear the bell before they see the pier.`;

describe('the command line', () => {
  it('gives a text apart as JSON, the same for the same seed', () => {
    const first = repurpose(TEXT, '-', '--json', '--for', 'pithline,benchfeed', '--seed', '7');
    expect([first.status, first.stderr]).toEqual([0, '']);
    const { text, sentences, extracts, clips, drafts } = JSON.parse(first.stdout);
    expect(sentences.map(({ start, end }: { start: number; end: number }) => text.slice(start, end))).toHaveLength(5);
    for (const one of extracts) expect(text.slice(one.start, one.end)).toBe(one.text);
    expect(clips).toEqual([]);
    expect(drafts.length).toBeGreaterThan(2);
    expect(
      drafts.every(
        ({ fits, network }: { fits: boolean; network: string }) => fits && ['pithline', 'benchfeed'].includes(network),
      ),
    ).toBe(true);
    expect(repurpose(TEXT, '-', '--json', '--for', 'pithline,benchfeed', '--seed', '7').stdout).toBe(first.stdout);
  });

  it('says in one line what is wrong: 2 for how it is called, 1 for what it cannot read', () => {
    for (const [words, status] of [
      [[], 2],
      [['-', '--for', 'nowhere'], 2],
      [['-', '--fan-out', 'nothing'], 2],
      [['-', '--seed', 'x'], 2],
      [['-', '--what'], 2],
      [['nothing-there.md'], 1],
    ] as const) {
      const said = repurpose(TEXT, ...words);
      expect([words, said.status, said.stdout]).toEqual([words, status, '']);
      expect(said.stderr.trim().split('\n')).toHaveLength(1);
    }
    expect(repurpose('  \n', '-').status).toBe(1);
    expect(repurpose('WEBVTT\n\nnothing', '-').status).toBe(1);
  });
});
