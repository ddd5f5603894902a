import type { CSSProperties } from 'react';

/** A channel's two capitals over a bar of its colour. The name is there for those who do not see the plate. */
export function CallSign({ sign, color, name }: { sign: string; color: string; name?: string }) {
  return (
    <span className="call-sign" style={{ '--channel': color } as CSSProperties} title={name}>
      {sign}
    </span>
  );
}
