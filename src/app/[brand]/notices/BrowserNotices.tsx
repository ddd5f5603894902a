'use client';

import { useState, useSyncExternalStore } from 'react';
import { WordButton } from '@/ui/WordButton';

type Allowed = NotificationPermission | 'unknown';

const never = () => () => {};
const allowed = (): Allowed => ('Notification' in window ? Notification.permission : 'unknown');

/** Whether the browser may say what is new while somebody looks at something else, and the way to allow it. */
export function BrowserNotices() {
  const [answered, setAnswered] = useState<Allowed | null>(null);
  const present = useSyncExternalStore<Allowed>(never, allowed, () => 'unknown');
  const state = answered ?? present;
  if (state === 'granted')
    return <p className="soft small-text">This browser shows notices while you look at something else.</p>;
  if (state === 'denied')
    return (
      <p className="soft small-text">
        This browser does not let Bimlo show notices. Its settings for this page change that.
      </p>
    );
  if (state === 'default')
    return (
      <p className="small-text">
        <WordButton onClick={() => void Notification.requestPermission().then(setAnswered)}>
          Show notices in this browser, too
        </WordButton>{' '}
        <span className="soft">while Bimlo is open in it and you look at something else.</span>
      </p>
    );
  return null;
}
