import { createRoot, type Root } from 'react-dom/client';
import { flushSync } from 'react-dom';
import { useState } from 'react';
import { Calendar, dateFnsLocalizer } from 'react-big-calendar';
import dragAndDrop from 'react-big-calendar/lib/addons/dragAndDrop';
import { addMonths, format, getDay, parse, startOfWeek } from 'date-fns';
import { enGB } from 'date-fns/locale';
import 'react-big-calendar/lib/css/react-big-calendar.css';
import 'react-big-calendar/lib/addons/dragAndDrop/styles.css';
import { addDays } from '@/core/time/days';
import { measure } from './harness';
import { benchPosts, FIRST_DAY, MONTH_DAYS } from './posts';

interface Event {
  id: string;
  title: string;
  start: Date;
  end: Date;
}

// The package is CommonJS, so its default export comes wrapped.
const withDragAndDrop = (dragAndDrop as unknown as { default?: typeof dragAndDrop }).default ?? dragAndDrop;
const localizer = dateFnsLocalizer({ format, parse, startOfWeek, getDay, locales: { 'en-GB': enGB } });
const Draggable = withDragAndDrop<Event>(Calendar<Event>);
let turn: () => void;

function Month({ events: start }: { events: Event[] }) {
  const [date, setDate] = useState(new Date(2026, 10, 1));
  const [events, setEvents] = useState(start);
  turn = () => flushSync(() => setDate((now) => addMonths(now, 1)));
  return (
    <Draggable
      localizer={localizer}
      culture="en-GB"
      events={events}
      date={date}
      onNavigate={setDate}
      view="month"
      onView={() => undefined}
      showAllEvents
      resizable={false}
      style={{ minHeight: '100vh' }}
      components={{ event: ({ event }: { event: Event }) => <span data-post={event.id}>{event.title}</span> }}
      onEventDrop={({ event, start: to }) =>
        setEvents((all) =>
          all.map((one) => (one.id === event.id ? { ...one, start: new Date(to), end: new Date(to) } : one)),
        )
      }
    />
  );
}

const eventsOf = (posts: ReturnType<typeof benchPosts>): Event[] =>
  posts.map((post) => {
    const start = new Date(`${post.date}T${post.time}:00`);
    return {
      id: post.id,
      title: `${post.callSign} ${post.time} ${post.title} ${post.missing ?? ''}`,
      start,
      end: start,
    };
  });

const place = document.getElementById('root')!;
let root: Root | null = null;
measure({
  mount(count) {
    root = createRoot(place);
    const after = benchPosts(count, 35, addDays(FIRST_DAY, MONTH_DAYS)).map((post) => ({
      ...post,
      id: `${post.id} b`,
    }));
    root.render(<Month events={eventsOf([...benchPosts(count, MONTH_DAYS), ...after])} />);
  },
  unmount() {
    root?.unmount();
    root = null;
  },
  next: () => turn(),
});
