'use client';

import { useRouter } from 'next/navigation';
import {
  createContext,
  useCallback,
  useContext,
  useEffect,
  useId,
  useMemo,
  useRef,
  useState,
  type ReactNode,
} from 'react';
import Button from 'react-bootstrap/Button';
import { Dialog } from './Dialog';

interface Guard {
  /** Notes whether a form has changes that are not saved. */
  note: (form: string, isChanged: boolean) => void;
  /** Goes somewhere, once that is agreed to where changes would be lost. */
  leave: (go: () => void) => void;
}

const Context = createContext<Guard>({ note: () => undefined, leave: (go) => go() });

/** Asks before changes of the forms in it are lost: by a link, by choosing another thing to edit, by closing the page. */
export function LeaveGuard({ children }: { children: ReactNode }) {
  const router = useRouter();
  const changed = useRef(new Set<string>());
  const [going, setGoing] = useState<{ go: () => void } | null>(null);

  const note = useCallback((form: string, isChanged: boolean) => {
    if (isChanged) changed.current.add(form);
    else changed.current.delete(form);
  }, []);
  const leave = useCallback((go: () => void) => {
    if (changed.current.size === 0) go();
    else setGoing({ go });
  }, []);

  useEffect(() => {
    const close = (event: BeforeUnloadEvent) => {
      if (changed.current.size > 0) event.preventDefault();
    };
    const follow = (event: MouseEvent) => {
      const link = (event.target as Element | null)?.closest?.('a[href]') as HTMLAnchorElement | null;
      const isOwn =
        link !== null && link.origin === location.origin && link.target === '' && !link.hasAttribute('download');
      const isPlain = event.button === 0 && !event.ctrlKey && !event.metaKey && !event.shiftKey && !event.altKey;
      if (!isOwn || !isPlain || changed.current.size === 0) return;
      event.preventDefault();
      event.stopPropagation();
      setGoing({ go: () => router.push(link.href.slice(location.origin.length)) });
    };
    addEventListener('beforeunload', close);
    // Before the link's own handler, which goes at once.
    document.addEventListener('click', follow, { capture: true });
    return () => {
      removeEventListener('beforeunload', close);
      document.removeEventListener('click', follow, { capture: true });
    };
  }, [router]);

  return (
    <Context value={useMemo(() => ({ note, leave }), [note, leave])}>
      {children}
      {going && (
        <Dialog
          title="Leave without saving?"
          onClose={() => setGoing(null)}
          deeds={
            <>
              <Button onClick={() => setGoing(null)}>Stay here</Button>
              <Button
                variant="outline"
                onClick={() => {
                  changed.current.clear();
                  setGoing(null);
                  going.go();
                }}
              >
                Leave without saving
              </Button>
            </>
          }
        >
          What you changed here is not saved yet.
        </Dialog>
      )}
    </Context>
  );
}

/** Says whether a form has changes that are not saved: leaving it is asked about then. */
export function useUnsaved(isChanged: boolean): void {
  const { note } = useContext(Context);
  const form = useId();
  useEffect(() => {
    note(form, isChanged);
    return () => note(form, false);
  }, [note, form, isChanged]);
}

/** Goes to something else to edit, once that is agreed to where changes would be lost. */
export const useLeave = (): Guard['leave'] => useContext(Context).leave;
