import { spawn } from 'node:child_process';
import { build } from 'esbuild';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { rm } from 'node:fs/promises';

/** The program as one file: to read its sources takes longer than to run it, each time. */
const PROGRAM = 'node_modules/.cache/bimlo-repurpose.mjs';
beforeAll(() =>
  build({
    entryPoints: ['scripts/repurpose.ts'],
    outfile: PROGRAM,
    bundle: true,
    platform: 'node',
    format: 'esm',
    alias: { '@': './src' },
    banner: { js: "import { createRequire } from 'node:module';\nconst require = createRequire(import.meta.url);" },
  }),
);
afterAll(() => rm(PROGRAM));

/** Runs the program beside others: most of its time goes into starting. */
const repurpose = (input: string, ...words: string[]) =>
  new Promise<{ status: number | null; stdout: string; stderr: string }>((resolve) => {
    const child = spawn(process.execPath, [PROGRAM, ...words]);
    let [stdout, stderr] = ['', ''];
    child.stdout.on('data', (data: Buffer) => void (stdout += data.toString()));
    child.stderr.on('data', (data: Buffer) => void (stderr += data.toString()));
    child.on('close', (status) => resolve({ status, stdout, stderr }));
    // One that is called wrongly ends before it reads.
    child.stdin.on('error', () => undefined);
    child.stdin.end(input);
  });
const TEXT = `# Fog on the pier

The ferry waits in the harbour until the fog has gone from the pier and the bell buoy. Twelve sailings were late in October because of fog. Why does the captain trust the bell more than the screen?

A bell needs no current, and its sound comes from where the buoy is. Passengers who stand on deck hear the bell before they see the pier.`;

describe('the command line', () => {
  it('gives a text apart as JSON, the same for the same seed', async () => {
    const words = ['-', '--json', '--for', 'pithline,benchfeed', '--seed', '7'];
    const [first, again] = await Promise.all([repurpose(TEXT, ...words), repurpose(TEXT, ...words)]);
    expect([first.status, first.stderr]).toEqual([0, '']);
    const { text, sentences, extracts, clips, drafts } = JSON.parse(first.stdout);
    expect(sentences.map(({ start, end }: { start: number; end: number }) => text.slice(start, end))).toHaveLength(5);
    for (const one of extracts) expect(text.slice(one.start, one.end)).toBe(one.text);
    expect(clips).toEqual([]);
    expect(drafts.length).toBeGreaterThan(2);
    expect(drafts[0].wording).toBe(1);
    expect(
      drafts.every(
        ({ fits, network }: { fits: boolean; network: string }) => fits && ['pithline', 'benchfeed'].includes(network),
      ),
    ).toBe(true);
    expect(again.stdout).toBe(first.stdout);
  });

  it('says in one line what is wrong: 2 for how it is called, 1 for what it cannot read', async () => {
    const cases: [input: string, words: string[], status: number][] = [
      [TEXT, [], 2],
      [TEXT, ['-', '--for', 'nowhere'], 2],
      [TEXT, ['-', '--fan-out', 'nothing'], 2],
      [TEXT, ['-', '--seed', 'x'], 2],
      [TEXT, ['-', '--what'], 2],
      [TEXT, ['-', '--lang', 'xx'], 2],
      [TEXT, ['nothing-there.md'], 1],
      ['  \n', ['-'], 1],
      ['WEBVTT\n\nnothing', ['-'], 1],
    ];
    await Promise.all(
      cases.map(async ([input, words, status]) => {
        const said = await repurpose(input, ...words);
        expect([words, said.status, said.stdout]).toEqual([words, status, '']);
        expect(said.stderr.trim().split('\n')).toHaveLength(1);
      }),
    );
  });
});
