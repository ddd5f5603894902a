'use client';

import dynamic from 'next/dynamic';
import { useState } from 'react';
import { outBytes, outMime, outSize, shapeFaults, type Recipe } from '@/core/media/fit';
import { shapeWords } from '@/core/posts/readiness';
import type { PostSheet, SheetPicture } from '@/core/posts/sheet';
import { formatRule, type RuleSheet } from '@/core/rulesheets/types';
import { problemOf } from '@/ui/api';
import { fileSize } from '@/ui/format';
import { useSay } from '@/ui/messages';
import type { PostEditor } from './usePostEditor';

const CropDialog = dynamic(() => import('./CropDialog').then((module) => module.CropDialog), { ssr: false });

/** The post's pictures with their alt texts and what is wrong with each, the mend beside it; and a place to add one. */
export function Pictures({
  editor,
  sheet,
  rules,
  disabled,
}: {
  editor: PostEditor;
  sheet: PostSheet;
  rules: RuleSheet;
  disabled: boolean;
}) {
  const say = useSay();
  const [incoming, setIncoming] = useState<string | null>(null);
  const [cropping, setCropping] = useState<SheetPicture | null>(null);

  async function add(files: FileList | null) {
    for (const file of files ?? []) {
      setIncoming(file.name);
      const answer = await editor.change('POST', `/api/posts/${sheet.id}/media`, file);
      const problem = problemOf(answer);
      if (problem) say({ text: problem, wrong: true });
    }
    setIncoming(null);
  }

  async function change(method: 'PATCH' | 'DELETE', pictureId: string, body: object) {
    const answer = await editor.change(method, `/api/posts/${sheet.id}/media/${pictureId}`, body);
    const problem = problemOf(answer);
    if (problem) say({ text: problem, wrong: true });
  }
  const fit = (picture: SheetPicture, part: Partial<Recipe>) => {
    const { crop, toMime, toBytes } = picture;
    void change('PATCH', picture.id, { recipe: { crop, toMime, toBytes, ...part } });
  };

  return (
    <div className="words">
      <div className="words-label">
        <span>Pictures</span>
      </div>
      <ul
        className="picture-row"
        onDragOver={(event) => event.preventDefault()}
        onDrop={(event) => {
          event.preventDefault();
          if (!disabled) void add(event.dataTransfer.files);
        }}
      >
        {sheet.pictures.map((picture) => (
          <li key={picture.id}>
            <img
              src={`/api/media/${picture.sha256}?size=thumb`}
              alt={picture.alt || picture.fileName}
              title={`${picture.fileName}, ${picture.width} × ${picture.height}, ${fileSize(picture.bytes)}`}
            />
            <textarea
              defaultValue={picture.alt}
              aria-label={`Alt text of ${picture.fileName}`}
              placeholder="alt text"
              disabled={disabled}
              onBlur={(event) => {
                if (event.target.value.trim() !== picture.alt)
                  void change('PATCH', picture.id, { alt: event.target.value });
              }}
            />
            {!disabled && (
              <span className="picture-deeds">
                <Mends picture={picture} sheet={sheet} rules={rules} onFit={(part) => fit(picture, part)} />
                <button type="button" className="word" onClick={() => setCropping(picture)}>
                  {picture.crop ? 'cropped' : 'crop'}
                </button>
                <button type="button" className="word" onClick={() => void change('DELETE', picture.id, {})}>
                  take away
                </button>
              </span>
            )}
          </li>
        ))}
        {!disabled && (
          <li>
            <label className="add-picture">
              {incoming ? `taking in ${incoming}…` : 'add a picture'}
              <input
                type="file"
                className="visually-hidden"
                accept="image/jpeg,image/png,image/webp,image/gif"
                multiple
                disabled={incoming !== null}
                onChange={(event) => {
                  void add(event.target.files);
                  event.target.value = '';
                }}
              />
            </label>
          </li>
        )}
      </ul>
      {cropping && (
        <CropDialog
          picture={cropping}
          postId={sheet.id}
          range={formatRule(rules, sheet.format)?.shapes ?? null}
          onCrop={(crop) => {
            fit(cropping, { crop });
            setCropping(null);
          }}
          onClose={() => setCropping(null)}
        />
      )}
    </div>
  );
}

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
  const converted = CONVERTS_TO.find((mime) => rules.pictureTypes.includes(mime));
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
        <button type="button" className="word attention" onClick={() => onFit({ toMime: converted })}>
          convert to {converted.slice(6).toUpperCase()}
        </button>
      )}
      {outBytes(picture) > rules.pictureMaxBytes && (
        <button type="button" className="word attention" onClick={() => onFit({ toBytes: rules.pictureMaxBytes })}>
          scale down to {fileSize(rules.pictureMaxBytes)}
        </button>
      )}
    </>
  );
}

/** Types pictures are converted to, the most welcome first. */
const CONVERTS_TO: readonly string[] = ['image/jpeg', 'image/png', 'image/webp'];
