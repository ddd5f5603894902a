import { createRef, useState } from 'react';
import { createRoot, type Root } from 'react-dom/client';
import FullCalendar from '@fullcalendar/react';
import dayGrid from '@fullcalendar/daygrid';
import interaction from '@fullcalendar/interaction';
import { addDays } from '@/core/time/days';
import { measure } from './harness';
import { benchPosts, FIRST_DAY, MONTH_DAYS } from './posts';

interface Event {
  id: string;
  title: string;
  start: string;
}

const calendar = createRef<FullCalendar>();

function Month({ events: start }: { events: Event[] }) {
  const [events, setEvents] = useState(start);
  return (
    <FullCalendar
      ref={calendar}
      plugins={[dayGrid, interaction]}
      initialView="dayGridMonth"
      initialDate="2026-11-01"
      firstDay={1}
      height="auto"
      editable
      events={events}
      eventContent={({ event }) => <span data-post={event.id}>{event.title}</span>}
      eventDrop={({ event }) =>
        setEvents((all) => all.map((one) => (one.id === event.id ? { ...one, start: event.startStr } : one)))
      }
    />
  );
}

const eventsOf = (posts: ReturnType<typeof benchPosts>): Event[] =>
  posts.map((post) => ({
    id: post.id,
    title: `${post.callSign} ${post.time} ${post.title} ${post.missing ?? ''}`,
    start: `${post.date}T${post.time}:00`,
  }));

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
  next: () => calendar.current!.getApi().next(),
});
