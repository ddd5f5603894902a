import { createHash } from 'node:crypto';

/** How a made-up network misbehaves. Shares are from 0 to 1; what is drawn for a key and call is always the same for a seed. */
export interface Faults {
  seed: number;
  /** Milliseconds before any answer. */
  slowMs: number;
  /** Share of keys refused for good, whatever the call. */
  refuse: number;
  /** Share of calls answered with "try later". */
  tryLater: number;
  /** Share of calls that never get an answer and are not accepted. */
  timeOutBefore: number;
  /** Share of calls that are accepted and never get an answer. */
  timeOutAfter: number;
  /** Calls of a key beyond this many have no faults (refusals stay). */
  onlyFirstCalls: number;
}

/**
 * A network that behaves.
 *
 * @internal
 */
export const NO_FAULTS: Faults = {
  seed: 1,
  slowMs: 0,
  refuse: 0,
  tryLater: 0,
  timeOutBefore: 0,
  timeOutAfter: 0,
  onlyFirstCalls: Number.MAX_SAFE_INTEGER,
};

/** What befalls a call. */
type Fault = 'none' | 'refuse' | 'tryLater' | 'timeOutBefore' | 'timeOutAfter';

/** Draws what befalls call number `call` (1 for the first) made under a key. */
export function drawFault(faults: Faults, key: string, call: number): Fault {
  if (share(faults.seed, key, 'refuse') < faults.refuse) return 'refuse';
  if (call > faults.onlyFirstCalls) return 'none';
  const drawn = share(faults.seed, key, `call ${call}`);
  if (drawn < faults.tryLater) return 'tryLater';
  if (drawn < faults.tryLater + faults.timeOutBefore) return 'timeOutBefore';
  if (drawn < faults.tryLater + faults.timeOutBefore + faults.timeOutAfter) return 'timeOutAfter';
  return 'none';
}

/** Reads settings of faults; what is absent or no number is refused with its name. */
export function readFaults(settings: Record<string, unknown>, from: Faults = NO_FAULTS): Faults {
  const read = { ...from };
  for (const [name, value] of Object.entries(settings)) {
    if (!(name in NO_FAULTS))
      throw new RangeError(`there is no fault “${name}”; there are ${Object.keys(NO_FAULTS).join(', ')}`);
    if (typeof value !== 'number' || !Number.isFinite(value) || value < 0)
      throw new RangeError(`${name} has to be a number from 0 up`);
    read[name as keyof Faults] = value;
  }
  return read;
}

function share(seed: number, key: string, what: string): number {
  return createHash('sha256').update(`${seed}|${key}|${what}`).digest().readUInt32BE(0) / 2 ** 32;
}
