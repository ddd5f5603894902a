import type { Instant } from './time/plan';

/** Where "now" comes from. Everything that needs the time is handed one of these. */
export interface Clock {
  /** The present instant. */
  now(): Instant;
}

/** Where new identifiers come from: a UUID in lower-case text each time. */
export type Ids = () => string;
