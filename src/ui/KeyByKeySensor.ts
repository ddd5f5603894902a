import {
  KeyboardSensor,
  type KeyboardSensorOptions,
  type KeyboardSensorProps,
  type UniqueIdentifier,
} from '@dnd-kit/core';

/** The place the last key leads to, until something hovers over it; null before the first key. */
export interface Aim {
  id: UniqueIdentifier | null;
}

type Props = KeyboardSensorProps & { options: KeyboardSensorOptions & { aim?: Aim } };

/** After so many frames a key is given out in any case: the place aimed at may have gone meanwhile. */
const PATIENCE_FRAMES = 60;

/** The keys that lead what was lifted somewhere; all others go where they would. */
const LEADING = new Set(['ArrowLeft', 'ArrowRight', 'ArrowUp', 'ArrowDown', 'Home', 'Space', 'Enter', 'Escape']);

/** Key events that were held back and are given out again. */
const givenAgain = new WeakSet<Event>();

/**
 * The drag library's keyboard sensor, for people who type fast: a key counts from where the one before it led. The
 * library reads where something hovers from what is drawn, so a key pressed before that was drawn would count from the
 * place before, and a drop would land there. Here such a key waits until the page stands still for a frame, and, where
 * the option `aim` tells the place the last key leads to, until what was lifted hovers there.
 */
export class KeyByKeySensor extends KeyboardSensor {
  constructor(props: Props) {
    const release = holdBackKeys(props);
    super({
      ...props,
      onEnd: () => {
        release();
        props.onEnd();
      },
      onCancel: () => {
        release();
        props.onCancel();
      },
    });
  }
}

/** Holds back the keys that come before the page has caught up; the answer ends it. */
function holdBackKeys({ event: lifting, context, activeNode, options: { aim } }: Props): () => void {
  const waiting: KeyboardEvent[] = [];
  let drawn: unknown = null;
  let frames = 0;
  let ended = false;

  function everyFrame() {
    if (ended) return;
    const now = context.current;
    const still = now === drawn && now.collisionRect !== null && (!aim?.id || now.over?.id === aim.id);
    drawn = now;
    frames += 1;
    const next = still || frames > PATIENCE_FRAMES ? waiting.shift() : undefined;
    if (next) {
      drawn = null;
      frames = 0;
      const again = new KeyboardEvent('keydown', next);
      givenAgain.add(again);
      (next.target ?? document).dispatchEvent(again);
    }
    if (!still || waiting.length > 0 || next) requestAnimationFrame(everyFrame);
  }

  function onKey(event: KeyboardEvent) {
    if (event === lifting || givenAgain.has(event) || !LEADING.has(event.code)) return;
    // Left without a drop: what was lifted is not on the page any more.
    if (!activeNode.node.current?.isConnected) return release();
    event.preventDefault();
    event.stopImmediatePropagation();
    // A key held down goes on while the page keeps up with it, and not after it is let go.
    if (event.repeat && waiting.length > 0) return;
    waiting.push(event);
    if (waiting.length === 1) requestAnimationFrame(everyFrame);
  }

  function release() {
    ended = true;
    document.removeEventListener('keydown', onKey, { capture: true });
  }

  document.addEventListener('keydown', onKey, { capture: true });
  return release;
}
