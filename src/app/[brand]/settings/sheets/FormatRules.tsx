'use client';

import {
  FORMATS,
  FORMAT_LABELS,
  type Format,
  type FormatRule,
  type PartsRule,
  type ShapeRange,
} from '@/core/rulesheets/types';
import { withArticle } from '@/core/words';
import { Whole } from './Whole';

/** What the ordered parts of a format are, where it can have any. */
const PARTS_OF: Partial<Record<Format, Pick<PartsRule, 'label' | 'needs'>>> = {
  carousel: { label: 'slide', needs: 'picture' },
  story: { label: 'frame', needs: 'picture' },
  thread: { label: 'part', needs: 'text' },
};
const VIDEO_FORMATS: readonly Format[] = ['shortVideo', 'longVideo', 'story', 'live'];
const NEW_VIDEO = { secondsMin: 1, secondsMax: 60, maxBytes: 100_000_000 };

/** The formats a network takes, and what each must and may hold. */
export function FormatRules({
  formats,
  onSet,
}: {
  formats: readonly FormatRule[];
  /** Changes the rule of a format; null: it is not taken. */
  onSet: (format: Format, change: Partial<FormatRule> | null) => void;
}) {
  return (
    <fieldset>
      <legend>Formats, with what each needs and takes</legend>
      <div className="format-rules">
        {FORMATS.map((format) => {
          const rule = formats.find((one) => one.format === format);
          return (
            <div key={format}>
              <label>
                <input
                  type="checkbox"
                  checked={rule !== undefined}
                  onChange={(event) => onSet(format, event.target.checked ? {} : null)}
                />{' '}
                {FORMAT_LABELS[format]}
              </label>
              {rule && <FormatLimits rule={rule} onSet={(change) => onSet(format, change)} />}
            </div>
          );
        })}
      </div>
    </fieldset>
  );
}

function FormatLimits({ rule, onSet }: { rule: FormatRule; onSet: (change: Partial<FormatRule>) => void }) {
  const name = FORMAT_LABELS[rule.format];
  const partsKind = PARTS_OF[rule.format];
  return (
    <span className="format-limits">
      <span>
        <Whole
          value={rule.picturesMin}
          label={`Pictures ${withArticle(name)} needs`}
          onChange={(picturesMin) => onSet({ picturesMin: picturesMin ?? 0 })}
        />{' '}
        to{' '}
        <Whole
          value={rule.picturesMax}
          label={`Pictures ${withArticle(name)} takes`}
          onChange={(picturesMax) => onSet({ picturesMax: picturesMax ?? 0 })}
        />{' '}
        pictures
      </span>
      <span>
        <Shapes
          name={`pictures of ${withArticle(name)}`}
          range={rule.shapes ?? null}
          onSet={(shapes) => onSet({ shapes })}
        />
      </span>
      <span>
        <Whole
          value={rule.minWidth ?? null}
          label={`Least width of pictures of ${withArticle(name)}; empty for any`}
          empty="any"
          onChange={(minWidth) => onSet({ minWidth })}
        />{' '}
        px wide at least
      </span>
      {partsKind && (
        <span>
          <Whole
            value={rule.parts?.most ?? null}
            label={`${partsKind.label}s ${withArticle(name)} takes; empty for none of its own`}
            empty="no"
            onChange={(most) =>
              onSet({ parts: most === null ? null : { limit: 200, ...rule.parts, ...partsKind, most } })
            }
          />{' '}
          {partsKind.label}s
          {rule.parts && (
            <>
              {' '}
              of{' '}
              <Whole
                value={rule.parts.limit}
                label={`Text of ${withArticle(partsKind.label)}`}
                onChange={(limit) => onSet({ parts: { ...rule.parts!, limit: limit ?? 0 } })}
              />
            </>
          )}
        </span>
      )}
      {VIDEO_FORMATS.includes(rule.format) && (
        <label>
          <input
            type="checkbox"
            checked={rule.video != null}
            onChange={(event) => onSet({ video: event.target.checked ? NEW_VIDEO : null })}
          />{' '}
          a video
        </label>
      )}
      {rule.video && (
        <>
          <span>
            <Whole
              value={rule.video.secondsMin}
              label={`Least seconds of ${withArticle(name)}`}
              onChange={(secondsMin) => onSet({ video: { ...rule.video!, secondsMin: secondsMin ?? 0 } })}
            />{' '}
            to{' '}
            <Whole
              value={rule.video.secondsMax}
              label={`Most seconds of ${withArticle(name)}`}
              onChange={(secondsMax) => onSet({ video: { ...rule.video!, secondsMax: secondsMax ?? 0 } })}
            />{' '}
            s,{' '}
            <Whole
              value={Math.round(rule.video.maxBytes / 1_000_000)}
              label={`Largest video of ${withArticle(name)} in MB`}
              onChange={(megabytes) => onSet({ video: { ...rule.video!, maxBytes: (megabytes ?? 0) * 1_000_000 } })}
            />{' '}
            MB
          </span>
          <span>
            <Shapes
              name={`the video of ${withArticle(name)}`}
              range={rule.video.shapes ?? null}
              onSet={(shapes) => onSet({ video: { ...rule.video!, shapes } })}
            />
          </span>
        </>
      )}
    </span>
  );
}

/** Widths to heights from narrow to wide; empty for any shape. */
function Shapes({
  name,
  range,
  onSet,
}: {
  name: string;
  range: ShapeRange | null;
  onSet: (range: ShapeRange | null) => void;
}) {
  const bound = (which: keyof ShapeRange, other: keyof ShapeRange, label: string) => (
    <input
      type="number"
      className="figures whole"
      step={0.01}
      min={0.1}
      max={10}
      aria-label={`${label} shape of ${name}, width to height; empty for any`}
      placeholder="any"
      value={range?.[which] ?? ''}
      onChange={(event) => {
        const shape = event.target.valueAsNumber;
        onSet(Number.isNaN(shape) ? null : ({ [which]: shape, [other]: range?.[other] ?? shape } as never));
      }}
    />
  );
  return (
    <>
      {bound('narrowest', 'widest', 'Narrowest')} to {bound('widest', 'narrowest', 'Widest')} wide to high
    </>
  );
}
