'use client';

import { useState } from 'react';
import { fitTexts } from '@/core/captions/compose';
import { linkSpans } from '@/core/captions/links';
import { isVideo } from '@/core/media/video';
import { outSize } from '@/core/media/fit';
import { loosePictures, partName, partsOf, partsRule } from '@/core/posts/parts';
import type { PostSheet, SheetPicture } from '@/core/posts/sheet';
import type { RuleSheet } from '@/core/rulesheets/types';
import { CroppedPicture } from '@/ui/CroppedPicture';
import type { Texts } from './usePostEditor';
import { WordButton } from '@/ui/WordButton';

/** A post roughly as a reader meets it: up to the fold, with its first picture or slide, on a narrow or a wide screen. */
export function Preview({ sheet, texts, rules }: { sheet: PostSheet; texts: Texts; rules: RuleSheet }) {
  const [isWide, setWide] = useState(false);
  const [isOpen, setOpen] = useState(false);
  const [shown, setShown] = useState(0);
  const written = { ...sheet, ...texts };
  const fits = fitTexts(written, rules, sheet.format);
  const rule = partsRule(rules, sheet.format);
  const parts = partsOf(sheet, rules).map((part) => ({ ...part, text: texts[`part:${part.id}`] ?? part.text }));
  const pictureOf = (id: string | null) => sheet.pictures.find((picture) => picture.id === id);
  const loose = loosePictures(parts, sheet.pictures).map(pictureOf);
  const isThread = rule?.needs === 'text';
  const slide = rule && !isThread ? parts[Math.min(shown, parts.length - 1)] : undefined;
  const text = (name: string) => fits.find((fit) => fit.rule.name === name);
  const [headline, caption, comment] = [text('headline'), text('caption'), text('firstComment')];

  return (
    <section className="preview" aria-label="Preview">
      <div className="words-label">
        <span>Preview</span>
        <WordButton aria-pressed={isWide} onClick={() => setWide(!isWide)}>
          {isWide ? 'on a wide screen' : 'on a narrow screen'}
        </WordButton>
      </div>
      <div className={`preview-paper${isWide ? ' is-wide' : ''}`}>
        <div className="preview-pictures">
          {slide ? (
            <figure>
              <PreviewPicture picture={pictureOf(slide.pictureId)} missing={`${partName(rule!, shown)}: no picture`} />
              <figcaption>
                <span dir="auto">{slide.text}</span>
                <span className="figures">
                  <WordButton aria-label="The one before" disabled={shown === 0} onClick={() => setShown(shown - 1)}>
                    ‹
                  </WordButton>{' '}
                  {shown + 1}/{parts.length}{' '}
                  <WordButton
                    aria-label="The one after"
                    disabled={shown >= parts.length - 1}
                    onClick={() => setShown(shown + 1)}
                  >
                    ›
                  </WordButton>
                </span>
              </figcaption>
            </figure>
          ) : (
            loose.map(
              (picture) =>
                picture && !isVideo(picture) && <PreviewPicture key={picture.id} picture={picture} missing="" />,
            )
          )}
        </div>
        <div className="preview-words">
          {headline && headline.text !== '' && (
            <p className="preview-headline">{upToFold(headline.text, headline.foldAt, isOpen)}</p>
          )}
          {caption && caption.text !== '' && (
            <p>
              <Linked text={upToFold(caption.text, caption.foldAt, isOpen)} isClickable={rules.linksClickable} />
              {caption.foldAt !== null && (
                <>
                  {' '}
                  <WordButton className="preview-more" onClick={() => setOpen(!isOpen)}>
                    {isOpen ? 'less' : 'more'}
                  </WordButton>
                </>
              )}
            </p>
          )}
          {isThread &&
            parts.map((part) => (
              <div key={part.id} className="preview-part">
                <p>
                  <Linked text={part.text} isClickable={rules.linksClickable} />
                </p>
                {part.pictureId && <PreviewPicture picture={pictureOf(part.pictureId)} missing="" />}
              </div>
            ))}
          {comment && comment.text !== '' && (
            <p className="preview-comment">
              <Linked text={comment.text} isClickable={rules.linksClickable} />
            </p>
          )}
        </div>
      </div>
    </section>
  );
}

const upToFold = (text: string, foldAt: number | null, isOpen: boolean): string =>
  isOpen || foldAt === null ? text : `${text.slice(0, foldAt).trimEnd()}…`;

/** A text with its links as a reader sees them: underlined where they can be followed. */
function Linked({ text, isClickable }: { text: string; isClickable: boolean }) {
  if (!isClickable) return text;
  const spans = linkSpans(text);
  return (
    <>
      {spans.map(({ start, end }, index) => (
        <span key={start}>
          {text.slice(spans[index - 1]?.end ?? 0, start)}
          <u>{text.slice(start, end)}</u>
        </span>
      ))}
      {text.slice(spans.at(-1)?.end ?? 0)}
    </>
  );
}

/** A picture in the shape it goes out in. */
function PreviewPicture({ picture, missing }: { picture: SheetPicture | undefined; missing: string }) {
  if (!picture) return <div className="preview-missing">{missing}</div>;
  return (
    <CroppedPicture
      sha256={picture.sha256}
      alt={picture.alt || picture.fileName}
      crop={picture.crop}
      size={outSize(picture)}
    />
  );
}
