'use client';

import dynamic from 'next/dynamic';
import type { KeyboardEvent } from 'react';
import type { LocalDate } from '@/core/time/plan';

export interface DateFieldProps {
  /** What it is, for screen readers: “Date”. */
  label: string;
  /** Empty for none. */
  value: LocalDate | '';
  onChange: (value: LocalDate | '') => void;
  /** Takes the focus when it appears. */
  autoFocus?: boolean;
  disabled?: boolean;
  isInvalid?: boolean;
  /** What Enter and Escape do while it is typed in; without, Enter sends the form it stands in. */
  onKey?: (event: KeyboardEvent) => void;
  /** Called when the focus leaves the field and its calendar. */
  onBlur?: () => void;
}

/**
 * A date as the reader’s own locale writes it, typed part by part or picked in a month. Its code comes when the first one is
 * shown: most screens have none.
 */
export const DateField = dynamic<DateFieldProps>(() => import('./DateFieldParts'), {
  ssr: false,
  loading: () => <span className="date-field is-loading" aria-busy="true" />,
});
