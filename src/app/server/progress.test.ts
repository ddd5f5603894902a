import { describe, expect, it } from 'vitest';
import { accept, type Result } from '@/core/refusal';
import { PROGRESS_TYPE } from '@/ui/progress';
import { answerAsItGoes } from './progress';

describe('an answer that says how far it is', () => {
  it('that is given up ends its work, and what the work says then goes nowhere', async () => {
    const request = new Request('http://127.0.0.1/', { headers: { accept: PROGRESS_TYPE } });
    let say: (share: number) => void = () => undefined;
    let signal: AbortSignal | undefined;
    let end: (result: Result<string>) => void = () => undefined;
    const response = await answerAsItGoes<string>(request, (watch) => {
      say = watch.onShare!;
      signal = watch.signal;
      return new Promise((resolve) => (end = resolve));
    });
    const reader = response.body!.getReader();
    say(0.5);
    expect(new TextDecoder().decode((await reader.read()).value)).toBe('{"share":0.5}\n');
    await reader.cancel();
    expect(signal!.aborted).toBe(true);
    expect(() => say(0.7)).not.toThrow();
    end(accept('done'));
    await new Promise((resolve) => setTimeout(resolve));
  });
});
