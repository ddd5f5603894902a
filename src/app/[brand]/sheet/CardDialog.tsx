'use client';

import { useEffect, useEffectEvent, useRef, useState } from 'react';
import Button from 'react-bootstrap/Button';
import Form from 'react-bootstrap/Form';
import { Dialog } from '@/ui/Dialog';
import {
  CARD_KINDS,
  CARD_LAYOUTS,
  CARD_LIMITS,
  cardSizes,
  LAYOUT_LABELS,
  wordsFor,
  type Card,
  type CardColours,
  type CardKind,
  type CardLayout,
} from '@/core/cards/card';
import type { PostSheet, SheetPicture } from '@/core/posts/sheet';
import { formatRule, type RuleSheet } from '@/core/rulesheets/types';
import { call, problemOf, UNREACHABLE } from '@/ui/api';
import { FieldRefusal } from '@/ui/FieldRefusal';
import { useKept } from '@/ui/useKept';
import { useSay } from '@/ui/messages';
import { useShell } from '@/ui/shell';
import { WordButton } from '@/ui/WordButton';
import { LibraryGrid } from '../library/LibraryGrid';
import type { PostEditor } from './usePostEditor';
import { Field } from '@/ui/Field';

/** How long after the last change the card is drawn again, in milliseconds. */
const DRAW_AFTER_MS = 250;

/** Words set as a picture: what they say, how they are set, in which colours and size; shown as it will be. */
export function CardDialog({
  editor,
  sheet,
  rules,
  picture,
  onClose,
}: {
  editor: PostEditor;
  sheet: PostSheet;
  rules: RuleSheet;
  /** The card that is set anew; null for a new one. */
  picture: SheetPicture | null;
  onClose: () => void;
}) {
  const { brand } = useShell();
  const say = useSay();
  const sizes = cardSizes(formatRule(rules, sheet.format));
  const [colours, setColours] = useState<readonly CardColours[]>([]);
  const {
    typed: card,
    set,
    fill,
    forget,
    wasKept,
  } = useKept<Card>(
    `card.${sheet.id}.${picture?.id ?? 'new'}`,
    picture?.card ?? firstCard(sheet, sizes[0]!, brand.name),
  );
  const [isChoosing, setChoosing] = useState(false);
  const { shown, problem } = useDrawn(brand.id, card, colours.length > 0);
  const [refusal, setRefusal] = useState<string | null>(null);

  const take = useEffectEvent((offered: readonly CardColours[]) => {
    setColours(offered);
    if (!picture && !wasKept && offered[0]) fill(offered[0]);
  });
  useEffect(() => {
    void call<CardColours[]>('GET', `/api/cards?brandId=${brand.id}`).then((answer) => {
      if (answer.kind !== 'done') return setRefusal(problemOf(answer));
      take(answer.value);
    });
  }, [brand.id]);

  async function keep() {
    const answer = await editor.change('POST', `/api/posts/${sheet.id}/cards`, {
      card,
      replaces: picture?.id ?? null,
    });
    const wrong = problemOf(answer);
    setRefusal(wrong);
    if (wrong) return;
    forget();
    say({ text: picture ? 'The card is updated.' : 'The card is a picture of the post now, with its alt text.' });
    onClose();
  }

  return (
    <Dialog
      title="Words as a picture"
      onClose={onClose}
      size="xl"
      bodyClassName="card-dialog"
      deeds={
        <Button disabled={shown === null || problem !== null} onClick={() => void keep()}>
          {picture ? 'Update the card' : 'Add the card'}
        </Button>
      }
      onCancel={() => {
        forget();
        onClose();
      }}
    >
      <div>
        <Field id="card-text" label="Words" className="mb-3">
          <Form.Control
            as="textarea"
            rows={4}
            dir="auto"
            maxLength={CARD_LIMITS.text}
            value={card.text}
            onChange={(event) => set({ text: event.target.value, follows: null })}
          />
          <FollowChoice card={card} sheet={sheet} onFollow={set} />
        </Field>
        <Field id="card-by" label="Below them" className="mb-3">
          <Form.Control
            dir="auto"
            maxLength={CARD_LIMITS.by}
            value={card.by}
            onChange={(event) => set({ by: event.target.value })}
          />
        </Field>
        <Choice
          legend="It is"
          choices={CARD_KINDS.map((one) => ({ value: one, label: `a ${one}` }))}
          chosen={card.kind}
          onChoose={(kind) => set({ kind: kind as CardKind })}
        />
        <Choice
          legend="Set"
          choices={CARD_LAYOUTS.map((one) => ({ value: one, label: LAYOUT_LABELS[one] }))}
          chosen={card.layout}
          onChoose={(layout) => set({ layout: layout as CardLayout })}
        />
        <Choice
          legend="Size"
          choices={sizes.map(({ width, height }) => ({ value: `${width} ${height}`, label: `${width} × ${height}` }))}
          chosen={`${card.width} ${card.height}`}
          onChoose={(size) => {
            const [width, height] = size.split(' ').map(Number);
            set({ width: width!, height: height! });
          }}
        />
        <fieldset className="card-choice">
          <legend className="form-label">Colours</legend>
          {colours.map((one) => (
            <label key={one.ground} className="card-colours" title={one.ground}>
              <input
                type="radio"
                name="card-colours"
                aria-label={`Words in ${one.ink} on ${one.ground}`}
                checked={one.ground === card.ground}
                onChange={() => set(one)}
              />
              <span style={{ background: one.ground, borderBottomColor: one.accent, color: one.ink }}>Aa</span>
            </label>
          ))}
        </fieldset>
        <p>
          {card.picture ? (
            <>
              Over a picture of the library.{' '}
              <WordButton onClick={() => set({ picture: null })}>On plain colour</WordButton>
            </>
          ) : (
            <WordButton aria-expanded={isChoosing} onClick={() => setChoosing(!isChoosing)}>
              Over a picture of the library…
            </WordButton>
          )}
        </p>
        {isChoosing && (
          <LibraryGrid
            first={null}
            onPick={(sha256) => {
              set({ picture: sha256 });
              setChoosing(false);
            }}
          />
        )}
      </div>
      <div className="card-shown">
        {shown && <img src={shown} alt="The card as it will be" />}
        <FieldRefusal>{refusal ?? problem}</FieldRefusal>
      </div>
    </Dialog>
  );
}

/** A card for a post as it stands: of its title, else of its first line. */
function firstCard(sheet: PostSheet, size: { width: number; height: number }, brandName: string): Card {
  const follows = sheet.headline.trim() !== '' ? 'headline' : 'firstLine';
  const text = wordsFor({ follows }, sheet) ?? sheet.title;
  const kind: CardKind = /\p{Nd}/u.test(text) ? 'number' : /[“”„«»「」]/u.test(text) ? 'quote' : 'point';
  return {
    ...{ layout: 'ruled', kind, text: text.slice(0, CARD_LIMITS.text), by: brandName, ...size, picture: null, follows },
    ...{ ground: '#134E5E', ink: '#FFFFFF', accent: '#FFFFFF' },
  };
}

/** Whether the words are those of the post, and change with them. */
function FollowChoice({
  card,
  sheet,
  onFollow,
}: {
  card: Card;
  sheet: PostSheet;
  onFollow: (part: Pick<Card, 'follows' | 'text'>) => void;
}) {
  if (card.follows !== null)
    return (
      <span className="soft small-text">
        They are the post’s {card.follows === 'headline' ? 'title' : 'first line'}: the card changes with it until the
        post is scheduled.
      </span>
    );
  return (['headline', 'firstLine'] as const).map((follows) => {
    const text = wordsFor({ follows }, sheet);
    return (
      text !== null && (
        <WordButton
          key={follows}
          className="card-follow"
          onClick={() => onFollow({ follows, text: text.slice(0, CARD_LIMITS.text) })}
        >
          Take the post’s {follows === 'headline' ? 'title' : 'first line'}
        </WordButton>
      )
    );
  });
}

function Choice({
  legend,
  choices,
  chosen,
  onChoose,
}: {
  legend: string;
  choices: readonly { value: string; label: string }[];
  chosen: string;
  onChoose: (value: string) => void;
}) {
  return (
    <fieldset className="card-choice">
      <legend className="form-label">{legend}</legend>
      {choices.map(({ value, label }) => (
        <Form.Check
          key={value}
          inline
          type="radio"
          id={`card-${legend}-${value}`}
          name={`card-${legend}`}
          label={label}
          checked={value === chosen}
          onChange={() => onChoose(value)}
        />
      ))}
    </fieldset>
  );
}

/** The card as the server draws it, and why it cannot. */
function useDrawn(brandId: string, card: Card, isReady: boolean) {
  const [drawn, setDrawn] = useState<{ shown: string | null; problem: string | null }>({ shown: null, problem: null });
  const latest = useRef(0);
  useEffect(() => {
    if (!isReady) return;
    const turn = ++latest.current;
    const timer = setTimeout(async () => {
      const next = await drawnBy(brandId, card);
      if (turn !== latest.current) return;
      setDrawn((now) => {
        if (now.shown) URL.revokeObjectURL(now.shown);
        return next;
      });
    }, DRAW_AFTER_MS);
    return () => clearTimeout(timer);
  }, [brandId, card, isReady]);
  return drawn;
}

/** Asks for the picture itself, which is no JSON. */
async function drawnBy(brandId: string, card: Card): Promise<{ shown: string | null; problem: string | null }> {
  try {
    const response = await fetch('/api/cards', {
      method: 'POST',
      headers: { 'content-type': 'application/json' },
      body: JSON.stringify({ brandId, card }),
    });
    if (response.ok) return { shown: URL.createObjectURL(await response.blob()), problem: null };
    const { refusal } = (await response.json()) as { refusal?: { message: string } };
    return { shown: null, problem: refusal?.message ?? UNREACHABLE };
  } catch {
    // fetch rejects alike whenever the server is away.
    return { shown: null, problem: UNREACHABLE };
  }
}
