import type { LocalDate, LocalTime } from '../time/plan';
import type { Parcel } from './network';

/** What stood on a post's sheet when an earlier copy of it turned out to be out: words, pictures and plan that did not leave. */
export interface NotSent {
  channelId: string;
  date: LocalDate | null;
  time: LocalTime | null;
  copy: Parcel;
}
