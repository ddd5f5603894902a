import { accept, refuse, type Result } from '../refusal';

/** The ground a colour is chosen for; on the dark ground its bar is drawn lighter (`--colour-lightness`). */
const PAPER = '#FAF7F0';
/** Least contrast of a graphic to its ground (WCAG 2.2, success criterion 1.4.11, asks 3 on the light ground). */
const LEAST_CONTRAST = 3;
/** Two colours nearer than this (Euclidean in Oklab) are hard to tell apart as small bars. */
const LEAST_DISTANCE = 0.035;

/** A colour as its three channels, 0 to 1. */
function channelsOf(hex: string): [number, number, number] {
  const value = Number.parseInt(hex.slice(1), 16);
  return [(value >> 16) / 255, ((value >> 8) & 255) / 255, (value & 255) / 255];
}

const linear = (channel: number): number => (channel <= 0.04045 ? channel / 12.92 : ((channel + 0.055) / 1.055) ** 2.4);

/** Relative luminance, 0 to 1 (WCAG 2.2). */
function luminance(hex: string): number {
  const [r, g, b] = channelsOf(hex).map(linear) as [number, number, number];
  return 0.2126 * r + 0.7152 * g + 0.0722 * b;
}

/** Contrast ratio of two colours, 1 to 21 (WCAG 2.2). */
export function contrast(a: string, b: string): number {
  const [light, dark] = [luminance(a), luminance(b)].sort((x, y) => y - x) as [number, number];
  return (light + 0.05) / (dark + 0.05);
}

/** A colour laid over another, which shows through by what is left of `share` (0 to 1). */
export function blend(over: string, under: string, share: number): string {
  const [top, ground] = [channelsOf(over), channelsOf(under)];
  return hexOf(top.map((channel, at) => channel * share + ground[at]! * (1 - share)));
}

/** A colour by its three channels, 0 to 1. */
export const hexOf = (channels: readonly number[]): string =>
  `#${channels
    .map((channel) =>
      Math.round(Math.min(1, Math.max(0, channel)) * 255)
        .toString(16)
        .padStart(2, '0'),
    )
    .join('')}`.toUpperCase();

/** A colour in Oklab (Björn Ottosson, 2020). */
function oklab(hex: string): [number, number, number] {
  const [r, g, b] = channelsOf(hex).map(linear) as [number, number, number];
  const l = Math.cbrt(0.4122214708 * r + 0.5363325363 * g + 0.0514459929 * b);
  const m = Math.cbrt(0.2119034982 * r + 0.6806995451 * g + 0.1073969566 * b);
  const s = Math.cbrt(0.0883024619 * r + 0.2817188376 * g + 0.6299787005 * b);
  return [
    0.2104542553 * l + 0.793617785 * m - 0.0040720468 * s,
    1.9779984951 * l - 2.428592205 * m + 0.4505937099 * s,
    0.0259040371 * l + 0.7827717662 * m - 0.808675766 * s,
  ];
}

/**
 * How far apart two colours look: Euclidean distance in Oklab, 0 for the same, about 1 from black to white.
 *
 * @internal
 */
export function colourDistance(a: string, b: string): number {
  const [x, y] = [oklab(a), oklab(b)];
  return Math.hypot(x[0] - y[0], x[1] - y[1], x[2] - y[2]);
}

/** Checks a hex colour and writes it in capitals. */
export function readHex(text: string, field = 'color'): Result<string> {
  const hex = text.trim().toUpperCase();
  if (/^#[0-9A-F]{6}$/.test(hex)) return accept(hex);
  return refuse('badColour', `“${text.slice(0, 20)}” is not a colour. Write it like #2E7D50.`, field);
}

/**
 * Checks a channel's colour: it has to be a hex colour, to show on paper, and to be told apart from the others of
 * its brand.
 */
export function readChannelColour(text: string, others: readonly { name: string; color: string }[]): Result<string> {
  const read = readHex(text);
  if (!read.ok) return read;
  const hex = read.value;
  if (contrast(hex, PAPER) < LEAST_CONTRAST)
    return refuse('paleColour', 'This colour is too pale to be seen on paper. Take a darker one.', 'color');
  const near = others.find((other) => colourDistance(hex, other.color) < LEAST_DISTANCE);
  if (near)
    return refuse('nearColour', `This can hardly be told apart from ${near.name}’s colour. Take another.`, 'color');
  return accept(hex);
}
