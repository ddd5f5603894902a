import { useMemo, useState } from 'react';
import { createRoot, type Root } from 'react-dom/client';
import { flushSync } from 'react-dom';
import { DndContext, DragOverlay, MeasuringStrategy, MouseSensor, useSensor, useSensors } from '@dnd-kit/core';
import { addMonths } from '@/core/calendar/months';
import { monthWeeks } from '@/core/calendar/month';
import type { Slip } from '@/core/calendar/slip';
import { addDays } from '@/core/time/days';
import { ShellProvider, type Shell } from '@/ui/shell';
import { SlipFace, slipClass } from '@/ui/SlipFace';
import { Carrier } from '@/app/[brand]/calendar/Carrier';
import { collisionBy, loadOf, placeOf, type Load } from '@/app/[brand]/calendar/dragging';
import { Lanes } from '@/app/[brand]/calendar/Lanes';
import { Month } from '@/app/[brand]/calendar/Month';
import { MarksProvider, TimetableProvider, type Timetable } from '@/app/[brand]/calendar/timetable';
import { readLook } from '@/app/[brand]/calendar/view';
import { measure } from './harness';
import { benchPosts, CHANNELS, FIRST_DAY, MONTH_DAYS } from './posts';

const TODAY = '2026-10-01';
const timetable: Timetable = {
  channels: new Map(CHANNELS.map((channel) => [channel.id, channel])),
  look: readLook(() => null),
  today: TODAY,
  zoneOf: () => 'UTC',
  todayOf: () => TODAY,
  bandOf: () => null,
  ownerName: () => 'Ines',
  pillarName: () => '',
};
const me: Shell['me'] = { id: 'ines', slug: 'ines', name: 'Ines', role: 'manager' };
const shell: Shell = {
  brand: {
    ...{ id: 'bench', slug: 'bench', name: 'Bench', zone: 'UTC', weekStart: 1, wordsPerMinute: 150 },
    ...{ asksSignOff: false, makersSend: null, makersExchange: false },
  },
  brands: [{ slug: 'bench', name: 'Bench' }],
  ...{ people: [me], me, entry: 'chosen', channels: [], pillars: [], campaigns: [] },
  ...{ now: `${TODAY}T09:00:00.000Z`, today: TODAY },
};
const noMarks = () => 0;
const NONE: never[] = [];
const collision = collisionBy({ id: null });

let turn: () => void;

/** The month arrangement with its posts in state, drawn and dragged by the calendar's own parts. */
function BenchMonth({ posts }: { posts: Slip[] }) {
  const [month, setMonth] = useState('2026-11-01');
  const [slips, setSlips] = useState<readonly Slip[]>(posts);
  const [lifted, setLifted] = useState<Load | null>(null);
  turn = () => flushSync(() => setMonth((now) => addMonths(now, 1)));
  const weeks = useMemo(() => monthWeeks(month, 1), [month]);
  const shown = useMemo(() => {
    const [from, to] = [weeks[0]![0]!.date, weeks.at(-1)![6]!.date];
    return slips.filter((slip) => slip.date! >= from && slip.date! <= to);
  }, [slips, weeks]);
  const sensors = useSensors(useSensor(MouseSensor, { activationConstraint: { distance: 5 } }));
  return (
    <TimetableProvider value={timetable}>
      <MarksProvider value={noMarks}>
        <DndContext
          id="calendar"
          sensors={sensors}
          collisionDetection={collision}
          measuring={{ droppable: { strategy: MeasuringStrategy.BeforeDragging } }}
          onDragStart={({ active }) => setLifted(loadOf(active))}
          onDragEnd={({ active, over }) => {
            setLifted(null);
            const load = loadOf(active);
            const place = over && placeOf(over);
            if (load.kind !== 'posts' || place?.kind !== 'day') return;
            const moved = { ...load.slips[0]!, date: place.date };
            setSlips((all) => [...all.filter(({ id }) => id !== moved.id), moved]);
          }}
        >
          <Carrier
            loadFor={(element) => {
              const slip = slips.find(({ id }) => id === element.dataset.post);
              return slip ? { kind: 'posts', slips: [slip] } : null;
            }}
            onClick={() => undefined}
          >
            <Month month={month} weeks={weeks} slips={shown} openings={NONE} knownDates={NONE} />
          </Carrier>
          <DragOverlay dropAnimation={null}>
            {lifted?.kind === 'posts' && (
              <div className={slipClass(lifted.slips[0]!)}>
                <SlipFace slip={lifted.slips[0]!} color="#333" />
              </div>
            )}
          </DragOverlay>
        </DndContext>
      </MarksProvider>
    </TimetableProvider>
  );
}

function BenchLanes({ posts }: { posts: Slip[] }) {
  const dates = Array.from({ length: 7 }, (_, index) => addDays('2026-11-02', index));
  return (
    <TimetableProvider value={timetable}>
      <MarksProvider value={noMarks}>
        <DndContext id="calendar">
          <Carrier loadFor={() => null} onClick={() => undefined}>
            <Lanes
              dates={dates}
              lanes={CHANNELS}
              slips={posts}
              openings={NONE}
              asked={NONE}
              horizons={NONE}
              knownDates={NONE}
              onMore={() => undefined}
            />
          </Carrier>
        </DndContext>
      </MarksProvider>
    </TimetableProvider>
  );
}

const place = document.getElementById('root')!;
const arrangement = new URLSearchParams(location.search).get('arrangement');
let root: Root | null = null;

measure({
  mount(count) {
    const posts =
      arrangement === 'lanes'
        ? benchPosts(count, 7, '2026-11-02')
        : [
            ...benchPosts(count, MONTH_DAYS),
            ...benchPosts(count, 35, addDays(FIRST_DAY, MONTH_DAYS)).map((slip) => ({ ...slip, id: `${slip.id} b` })),
          ];
    root = createRoot(place);
    root.render(
      <ShellProvider shell={shell}>
        {arrangement === 'lanes' ? <BenchLanes posts={posts} /> : <BenchMonth posts={posts} />}
      </ShellProvider>,
    );
  },
  unmount() {
    root?.unmount();
    root = null;
  },
  next: () => turn(),
});
