/** Rows of a file that were left out, each by its line with the reason. */
export function BadRows({ bad }: { bad: readonly { line: number; reason: string }[] }) {
  if (bad.length === 0) return null;
  return (
    <details className="bad-rows" open={bad.length <= 10}>
      <summary className="attention">
        {bad.length === 1 ? '1 row is left out' : `${bad.length.toLocaleString('en-GB')} rows are left out`}
      </summary>
      <ul>
        {bad.slice(0, 500).map(({ line, reason }, index) => (
          <li key={index}>
            <span className="figures">line {line}</span> {reason}
          </li>
        ))}
      </ul>
    </details>
  );
}
