const two = (value: number): string => String(value).padStart(2, '0');

/** A moment of a recording: “06:12”, “1:02:03”. */
export function moment(ms: number): string {
  const seconds = Math.floor(ms / 1_000);
  const hours = Math.floor(seconds / 3_600);
  return `${hours > 0 ? `${hours}:` : ''}${two(Math.floor(seconds / 60) % 60)}:${two(seconds % 60)}`;
}

/** From one moment of a recording to another: “06:12 to 06:41”. */
export const moments = (inMs: number, outMs: number): string => `${moment(inMs)} to ${moment(outMs)}`;
