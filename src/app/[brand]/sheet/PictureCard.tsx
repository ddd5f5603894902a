'use client';

import dynamic from 'next/dynamic';
import { useState } from 'react';
import { lengthWords } from '@/core/captions/spoken';
import { isVideo } from '@/core/media/video';
import { OUT_TYPES, outBytes, outMime, outSize, shapeFaults, type Recipe } from '@/core/media/fit';
import { shapeWords } from '@/core/posts/readiness';
import type { PostSheet, SheetPicture } from '@/core/posts/sheet';
import { formatRule, type RuleSheet } from '@/core/rulesheets/types';
import { problemOf } from '@/ui/api';
import { fileSize } from '@/ui/format';
import { useSay } from '@/ui/messages';
import type { PostEditor } from './usePostEditor';
import { WordButton } from '@/ui/WordButton';

const CropDialog = dynamic(() => import('./CropDialog').then((module) => module.CropDialog), { ssr: false });

const CardDialog = dynamic(() => import('./CardDialog').then((module) => module.CardDialog), { ssr: false });

/** A picture of a post with its alt text and what is wrong with it, the mend beside it. */
export function PictureCard({
  picture,
  editor,
  sheet,
  rules,
  disabled,
}: {
  picture: SheetPicture;
  editor: PostEditor;
  sheet: PostSheet;
  rules: RuleSheet;
  disabled: boolean;
}) {
  const say = useSay();
  const [isCropping, setCropping] = useState(false);
  const [isSetting, setSetting] = useState(false);
  const [alt, setAlt] = useState(picture.alt);

  async function change(method: 'PATCH' | 'DELETE', body: object) {
    const answer = await editor.change(method, `/api/posts/${sheet.id}/media/${picture.id}`, body);
    const problem = problemOf(answer);
    if (problem) say({ text: problem, wrong: true });
  }
  const fit = (part: Partial<Recipe>) => {
    const { crop, toMime, toBytes } = picture;
    void change('PATCH', { recipe: { crop, toMime, toBytes, ...part } });
  };

  return (
    <div className="picture-card">
      {isVideo(picture) ? (
        <video
          src={`/api/media/${picture.sha256}#t=0.5`}
          preload="metadata"
          controls
          muted
          aria-label={picture.fileName}
        />
      ) : (
        <img
          src={`/api/media/${picture.sha256}?size=thumb`}
          alt={picture.alt || picture.fileName}
          title={`${picture.fileName}, ${picture.width} × ${picture.height}, ${fileSize(picture.bytes)}`}
        />
      )}
      {isVideo(picture) ? (
        <span className="figures soft">
          {lengthWords((picture.durationMs ?? 0) / 1_000)}, {picture.width} × {picture.height}
        </span>
      ) : (
        <textarea
          dir="auto"
          value={alt}
          aria-label={`Alt text of ${picture.fileName}`}
          placeholder="alt text"
          disabled={disabled}
          onChange={(event) => setAlt(event.target.value)}
          onBlur={() => {
            if (alt.trim() !== picture.alt) void change('PATCH', { alt });
          }}
        />
      )}
      {alt.length > ALT_IS_LONG && (
        <span className="attention figures">
          long alt text: {alt.length} characters, and some readers stop at {ALT_IS_LONG}
        </span>
      )}
      {!disabled && (
        <span className="picture-deeds">
          {!isVideo(picture) && (
            <>
              <Mends picture={picture} sheet={sheet} rules={rules} onFit={fit} />
              <WordButton onClick={() => setCropping(true)}>{picture.crop ? 'Cropped' : 'Crop'}</WordButton>
            </>
          )}
          {picture.card && <WordButton onClick={() => setSetting(true)}>Change the card…</WordButton>}
          <a className="word" href={`/api/media/${picture.sha256}?save`}>
            Original
          </a>
          <WordButton onClick={() => void change('DELETE', {})}>Remove</WordButton>
        </span>
      )}
      {isSetting && picture.card && (
        <CardDialog editor={editor} sheet={sheet} rules={rules} picture={picture} onClose={() => setSetting(false)} />
      )}
      {isCropping && (
        <CropDialog
          picture={picture}
          postId={sheet.id}
          range={formatRule(rules, sheet.format)?.shapes ?? null}
          onCrop={(crop) => {
            fit({ crop });
            setCropping(false);
          }}
          onClose={() => setCropping(false)}
        />
      )}
    </div>
  );
}

/** Characters after which an alt text is long to listen to. */
const ALT_IS_LONG = 250;

/** What the network would refuse this picture for, with what mends it. */
function Mends({
  picture,
  sheet,
  rules,
  onFit,
}: {
  picture: SheetPicture;
  sheet: PostSheet;
  rules: RuleSheet;
  onFit: (part: Partial<Recipe>) => void;
}) {
  const rule = formatRule(rules, sheet.format);
  const faults = rule ? shapeFaults(picture, rule) : [];
  const converted = OUT_TYPES.find((mime) => rules.pictureTypes.includes(mime));
  const size = outSize(picture);
  return (
    <>
      {rule?.shapes && faults.some(({ kind }) => kind === 'shape') && (
        <span className="attention" title={`It is ${size.width} × ${size.height}`}>
          not {shapeWords(rule.shapes)}
        </span>
      )}
      {faults.map(
        (fault) =>
          fault.kind === 'small' && (
            <span key="small" className="attention">{`${fault.has} of ${fault.needs} px wide`}</span>
          ),
      )}
      {!rules.pictureTypes.includes(outMime(picture)) && converted && (
        <WordButton className="attention" onClick={() => onFit({ toMime: converted })}>
          convert to {converted.slice(6).toUpperCase()}
        </WordButton>
      )}
      {outBytes(picture) > rules.pictureMaxBytes && (
        <WordButton className="attention" onClick={() => onFit({ toBytes: rules.pictureMaxBytes })}>
          scale down to {fileSize(rules.pictureMaxBytes)}
        </WordButton>
      )}
    </>
  );
}

/** Types pictures are converted to, the most welcome first. */
