import { readdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import { createCanvas, GlobalFonts, Image, type Canvas, type SKRSContext2D } from '@napi-rs/canvas';
import { hexOf } from '@/core/brands/colours';
import { scrimFor, type Card } from '@/core/cards/card';
import { composeCard, type CardFont, type Drawn } from '@/core/cards/compose';
import { accept, refuse, type Result } from '@/core/refusal';
import type { CardFonts } from './cardFonts';

const FONTS = 'node_modules/@fontsource-variable';
/** What cards are set in, in this order for each letter: the interface's own, then one a script. */
const FAMILIES: Record<CardFont, { weight: number; files: string[] }> = {
  words: {
    weight: 650,
    files: ['latin', 'latin-ext', 'vietnamese'].map(
      (part) => `${FONTS}/bricolage-grotesque/files/bricolage-grotesque-${part}-wght-normal.woff2`,
    ),
  },
  by: {
    weight: 500,
    files: ['latin', 'latin-ext', 'cyrillic-ext', 'vietnamese'].map(
      (part) => `${FONTS}/hanken-grotesk/files/hanken-grotesk-${part}-wght-normal.woff2`,
    ),
  },
};
const SCRIPTS = 'assets/fonts';
const EMOJI = 'node_modules/@fontsource/noto-color-emoji/files/noto-color-emoji-emoji-400-normal.woff2';

let fonts: Record<CardFont, string> | undefined;

/** Registers the fonts once, and gives the list of families of each. */
function fontsOf(): Record<CardFont, string> {
  if (fonts) return fonts;
  const register = (file: string, name: string): string => {
    GlobalFonts.register(readFileSync(join(process.cwd(), file)), name);
    return name;
  };
  const scripts = readdirSync(join(process.cwd(), SCRIPTS))
    .filter((file) => file.endsWith('.woff2'))
    .sort()
    .map((file, at) => register(join(SCRIPTS, file), `Bimlo Script ${at}`));
  const others = [...scripts, register(EMOJI, 'Bimlo Emoji')];
  const listOf = (font: CardFont) =>
    [...FAMILIES[font].files.map((file, at) => register(file, `Bimlo ${font} ${at}`)), ...others]
      .map((name) => `"${name}"`)
      .join(', ');
  return (fonts = { words: listOf('words'), by: listOf('by') });
}

/** Pixels of the small copy of a picture that its lightest and darkest colours are looked for in. */
const SAMPLE = 48;

/**
 * Draws a card as a PNG picture.
 *
 * @param picture bytes of the picture beneath, where the card has one
 * @param brandFonts what the brand sets its words in; letters that they lack come from Bimlo's own
 */
export function drawCard(card: Card, picture: Uint8Array | null, brandFonts: CardFonts = {}): Result<Uint8Array> {
  const canvas = createCanvas(card.width, card.height);
  const context = canvas.getContext('2d');
  const setFont = settingIn(brandFonts);
  const beneath = picture === null ? null : imageOf(picture);
  if (picture !== null && beneath === null)
    return refuse('badPicture', 'The picture beneath cannot be drawn. Choose another.', 'picture');
  const widths = (font: CardFont) => (text: string, size: number) => {
    setFont(context, font, size);
    return context.measureText(text).width;
  };
  const veil = beneath ? scrimFor(card, extremesOf(beneath, card)) : 1;
  const composed = composeCard(card, { words: widths('words'), by: widths('by') }, veil);
  if (!composed.ok) return composed;
  for (const drawn of composed.value) drawOne(context, canvas, drawn, beneath, setFont);
  return accept(new Uint8Array(canvas.toBuffer('image/png')));
}

function imageOf(bytes: Uint8Array): Image | null {
  const image = new Image();
  image.onerror = () => undefined;
  image.src = Buffer.from(bytes);
  return image.width > 0 && image.height > 0 ? image : null;
}

type SetFont = (context: SKRSContext2D, font: CardFont, size: number) => void;

/** Fonts of brands that this thread knows already, by their content hash. */
const known = new Set<string>();

/** Sets text in the fonts of a brand where it has some, and in ours for the letters they lack. */
function settingIn(brandFonts: CardFonts): SetFont {
  const first = (font: CardFont): string => {
    const own = brandFonts[font];
    if (!own) return '';
    const name = `Brand ${own.sha256}`;
    if (!known.has(name)) {
      GlobalFonts.register(Buffer.from(own.bytes), name);
      known.add(name);
    }
    return `"${name}", `;
  };
  const lists = { words: first('words') + fontsOf().words, by: first('by') + fontsOf().by };
  return (context, font, size) => void (context.font = `${FAMILIES[font].weight} ${size}px ${lists[font]}`);
}

/** Whether something is a font that text can be set in. */
export const isFont = (bytes: Uint8Array): boolean => GlobalFonts.register(Buffer.from(bytes), 'Tried') !== null;

function drawOne(context: SKRSContext2D, canvas: Canvas, drawn: Drawn, beneath: Image | null, setFont: SetFont): void {
  switch (drawn.draw) {
    case 'area':
      context.fillStyle = drawn.colour;
      context.fillRect(drawn.x, drawn.y, drawn.width, drawn.height);
      break;
    case 'picture':
      drawOver(context, beneath!, canvas);
      break;
    case 'veil':
      context.globalAlpha = drawn.share;
      context.fillStyle = drawn.colour;
      context.fillRect(0, 0, canvas.width, canvas.height);
      context.globalAlpha = 1;
      break;
    case 'line':
      setFont(context, drawn.font, drawn.size);
      context.direction = drawn.isRtl ? 'rtl' : 'ltr';
      context.textAlign = drawn.isRtl ? 'right' : 'left';
      context.fillStyle = drawn.colour;
      context.fillText(drawn.text, drawn.x, drawn.y);
  }
}

/** Draws a picture over all of an area, its middle in the middle. */
function drawOver(context: SKRSContext2D, image: Image, { width, height }: { width: number; height: number }): void {
  const scale = Math.max(width / image.width, height / image.height);
  const [w, h] = [image.width * scale, image.height * scale];
  context.drawImage(image, (width - w) / 2, (height - h) / 2, w, h);
}

/** The lightest and the darkest colour of what shows of a picture, as its small copy has them. */
function extremesOf(image: Image, { width, height }: Card): string[] {
  const small = { width: SAMPLE, height: Math.max(1, Math.round((SAMPLE * height) / width)) };
  const context = createCanvas(small.width, small.height).getContext('2d');
  drawOver(context, image, small);
  const { data } = context.getImageData(0, 0, small.width, small.height);
  let [lightest, darkest] = [0, 0];
  const lightOf = (at: number) => 0.2126 * data[at]! + 0.7152 * data[at + 1]! + 0.0722 * data[at + 2]!;
  for (let at = 0; at < data.length; at += 4) {
    if (lightOf(at) > lightOf(lightest)) lightest = at;
    if (lightOf(at) < lightOf(darkest)) darkest = at;
  }
  return [lightest, darkest].map((at) => hexOf([data[at]! / 255, data[at + 1]! / 255, data[at + 2]! / 255]));
}
