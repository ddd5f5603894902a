'use client';

import { createContext, useCallback, useContext, useRef, useState, type ReactNode } from 'react';
import Toast from 'react-bootstrap/Toast';
import ToastContainer from 'react-bootstrap/ToastContainer';
import { WordButton } from '@/ui/WordButton';

/** Something to tell the person in passing. */
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
  return (
    <Context value={say}>
      {children}
      <ToastContainer className="messages" aria-live="polite">
        {shown.map(({ key, text, wrong, deed }) => (
          <Toast
            key={key}
            className={wrong ? 'is-wrong' : undefined}
            onClose={() => close(key)}
            autohide={!wrong}
            delay={deed ? STANDS_MS.withDeed : STANDS_MS.plain}
            animation={false}
          >
            <Toast.Body>
              <span>{text}</span>
              {deed && (
                <WordButton
                  onClick={() => {
                    close(key);
                    deed.run();
                  }}
                >
                  {deed.label}
                </WordButton>
              )}
              <WordButton onClick={() => close(key)} aria-label="Close this message">
                ×
              </WordButton>
            </Toast.Body>
          </Toast>
        ))}
      </ToastContainer>
    </Context>
  );
}

/** Says something in passing. */
export function useSay(): Say {
  const say = useContext(Context);
  if (!say) throw new Error('useSay outside MessagesProvider');
  return say;
}
