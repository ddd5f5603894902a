import { createServer, type Server } from 'node:http';
import { sentencesOf } from '@/core/extracts/sentences';
import { readPlain } from '@/core/reading/readingText';
import type { WritingRequest } from '@/core/writing/form';

/** What a stand-in does wrong, for tests: it says nothing, breaks off, says too much, or speaks of something else. */
type WritingFault = 'silent' | 'breaksOff' | 'tooLong' | 'noJson' | 'elsewhere';

/** How a stand-in for a writing service behaves. */
interface WritingStandIn {
  /** Asked for with each request; empty for none. */
  key?: string;
  /** What becomes of requests in turn; null for a right answer, as all are after the last. */
  faults?: (WritingFault | null)[];
  /** Told of each request. */
  onRequest?: (request: WritingRequest) => void;
}

/** Bytes of a request, at most. */
const MOST_BYTES = 1_000_000;

/**
 * A writing service as `docs/writing-service.md` describes it, which knows nothing: each text it gives is a sentence of the source
 * that fits and that it has not given yet, else how Bimlo would have written it.
 */
export function createWritingServer({
  key = '',
  faults = [],
  onRequest = () => undefined,
}: WritingStandIn = {}): Server {
  const turns = [...faults];
  return createServer((request, response) => {
    const answer = (status: number, body: object | string, headers: Record<string, string> = {}) =>
      response
        .writeHead(status, { 'content-type': 'application/json', ...headers })
        .end(typeof body === 'string' ? body : JSON.stringify(body));
    if (request.method !== 'POST') return answer(405, { problem: 'POST only' });
    if (key !== '' && request.headers.authorization !== `Bearer ${key}`) return answer(401, { problem: 'no such key' });
    const chunks: Buffer[] = [];
    let bytes = 0;
    request.on('data', (chunk: Buffer) => {
      bytes += chunk.length;
      if (bytes > MOST_BYTES) request.destroy();
      else chunks.push(chunk);
    });
    request.on('end', () => {
      const asked = JSON.parse(Buffer.concat(chunks).toString('utf8')) as WritingRequest;
      onRequest(asked);
      const fault = turns.shift() ?? null;
      if (fault === 'silent') return;
      if (fault === 'noJson') return answer(200, 'Here are your texts!');
      if (fault === 'elsewhere') return answer(302, {}, { location: 'http://127.0.0.1:9/' });
      const texts = textsFor(asked);
      if (fault === 'breaksOff') return answer(200, { texts: texts.map((text) => `${text.slice(0, -1)} and`) });
      if (fault === 'tooLong') return answer(200, { texts: texts.map((text) => `${text} `.repeat(400).trim()) });
      answer(200, { texts });
    });
  });
}

/** The texts for a request. */
function textsFor({ source, wanted, language }: WritingRequest): string[] {
  const reading = readPlain(source);
  // The first and the last may be cut: the source is a part of a piece.
  const whole = sentencesOf(reading, language).map(({ start, end }) => reading.text.slice(start, end));
  const free = whole.slice(1, -1).filter((sentence) => /[.!?]$/.test(sentence));
  return wanted.map(({ most, start }) => {
    const at = free.findIndex((sentence) => sentence.length <= most);
    return at < 0 ? start : free.splice(at, 1)[0]!;
  });
}
