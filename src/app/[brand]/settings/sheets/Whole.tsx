'use client';

/** A whole number typed into a rule. */
export function Whole({
  value,
  label,
  empty,
  onChange,
}: {
  value: number | null;
  label: string;
  /** What no number means; without it a number is needed. */
  empty?: string;
  onChange: (value: number | null) => void;
}) {
  return (
    <input
      className="figures whole"
      inputMode="numeric"
      aria-label={label}
      placeholder={empty ?? ''}
      value={value ?? ''}
      onChange={(event) => {
        const digits = event.target.value.replace(/\D/g, '');
        onChange(digits === '' ? null : Number(digits));
      }}
    />
  );
}
