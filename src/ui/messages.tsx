'use client';

import {
  createContext,
  useCallback,
  useContext,
  useEffect,
  useEffectEvent,
  useRef,
  useState,
  type ReactNode,
} from 'react';
import { useHotkeys } from 'react-hotkeys-hook';
import { WordButton } from '@/ui/WordButton';

/**
 * Something to tell the person in passing.
 *
 * @internal
 */
export interface Message {
  text: string;
  wrong?: boolean;
  /** A deed offered with it, as “Undo” or “Try again”. */
  deed?: { label: string; run: () => void };
}

type Say = (message: Message) => void;
const Context = createContext<Say | null>(null);

/** How long a message stands; one that offers a deed stands longer. In milliseconds. */
const STANDS_MS = { plain: 5_000, withDeed: 12_000 };

/** Shows messages at the foot of the page, spoken to screen readers. */
export function MessagesProvider({ children }: { children: ReactNode }) {
  const [shown, setShown] = useState<(Message & { key: number })[]>([]);
  const nextKey = useRef(0);
  const close = useCallback((key: number) => setShown((all) => all.filter((message) => message.key !== key)), []);
  const say = useCallback<Say>((message) => {
    const key = nextKey.current++;
    setShown((all) => [...all.slice(-3), { ...message, key }]);
  }, []);
  // While one reads or reaches for it, nothing goes.
  const [isHeld, setHeld] = useState(false);
  const hold = () => setHeld(true);
  const release = () => setHeld(false);
  useHotkeys('u', () => {
    const last = shown.findLast(({ deed }) => deed !== undefined);
    if (!last) return;
    close(last.key);
    last.deed!.run();
  });
  return (
    <Context value={say}>
      {children}
      <div className="messages" onPointerEnter={hold} onPointerLeave={release} onFocus={hold} onBlur={release}>
        {/* There before anything is said in it, so that what is said is heard; what is wrong says so itself, and louder. */}
        <div aria-live="polite">
          {shown.map(({ key, text, wrong, deed }) => (
            <MessageLine key={key} {...{ text, wrong, deed, isHeld }} onClose={() => close(key)} />
          ))}
        </div>
      </div>
    </Context>
  );
}

/** Says something in passing. */
export function useSay(): Say {
  const say = useContext(Context);
  if (!say) throw new Error('useSay outside MessagesProvider');
  return say;
}

/** One message, which goes by itself unless something is wrong. Bootstrap's own component would speak each a second time. */
function MessageLine({
  text,
  wrong = false,
  deed,
  isHeld,
  onClose,
}: Message & {
  /** Somebody reads it, or reaches for it. */
  isHeld: boolean;
  onClose: () => void;
}) {
  const goes = !wrong && !isHeld;
  const close = useEffectEvent(onClose);
  useEffect(() => {
    if (!goes) return;
    const timer = setTimeout(() => close(), deed ? STANDS_MS.withDeed : STANDS_MS.plain);
    return () => clearTimeout(timer);
  }, [goes, deed]);
  return (
    <div className={`toast show${wrong ? ' is-wrong' : ''}`} role={wrong ? 'alert' : undefined}>
      <div className="toast-body">
        <span>{text}</span>
        <span className="message-deeds" aria-live="off">
          {deed && (
            <WordButton
              aria-keyshortcuts="u"
              onClick={() => {
                onClose();
                deed.run();
              }}
            >
              {deed.label}
            </WordButton>
          )}{' '}
          <WordButton onClick={onClose} aria-label="Close this message">
            <span aria-hidden="true">×</span>
          </WordButton>
        </span>
      </div>
    </div>
  );
}
