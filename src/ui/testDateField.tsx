import type { DateFieldProps } from './DateField';

/** Stands in for the date field in tests of the forms around it (`vitest.config.ts`); the field itself is tested by its parts. */
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
