import type { Clock, Ids } from '@/core/clock';
import type { Db } from '../useCase';

/** What signing in is given: nobody is known yet who does it. */
export interface House {
  db: Db;
  clock: Clock;
  ids: Ids;
}

/** From where somebody comes. */
export interface From {
  /** Network address. */
  address: string;
  /** What their browser calls itself. */
  agent: string;
}

/** Characters of what a browser calls itself that are kept. */
const AGENT_KEPT = 300;

/** Where somebody comes from, as it is kept. */
export const keptFrom = ({ address, agent }: From): From => ({
  address: address.slice(0, 100),
  agent: agent.slice(0, AGENT_KEPT),
});
