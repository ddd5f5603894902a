import type { DateFieldProps } from './DateField';

/** Stands in for the date field where a test is about the form around it: `vi.mock('@/ui/DateField', () => import('@/ui/testDateField'))`. */
export const DateField = ({ label, value, onChange, disabled, onKey, onBlur, autoFocus }: DateFieldProps) => (
  <input
    aria-label={label}
    value={value}
    disabled={disabled}
    autoFocus={autoFocus}
    onBlur={onBlur}
    onKeyDown={onKey}
    onChange={(event) => onChange(event.target.value)}
  />
);
