import { addDays } from '@/core/time/days';
import { groupBy } from '@/core/group';
import { STAGE_LABELS } from '@/core/stages/stages';
import { measure } from './harness';
import { benchPosts, CHANNELS, FIRST_DAY, MONTH_DAYS } from './posts';

// A static table with the same cells and text, set as HTML at once: the floor for what drawing costs.
const place = document.getElementById('root')!;
const isLanes = new URLSearchParams(location.search).get('arrangement') === 'lanes';

measure({
  mount(count) {
    const posts = isLanes ? benchPosts(count, 7, '2026-11-02') : benchPosts(count, MONTH_DAYS);
    const first = isLanes ? '2026-11-02' : FIRST_DAY;
    const cells = groupBy(posts, (post) => (isLanes ? `${post.channelId} ${post.date}` : post.date!));
    const cell = (key: string, head: string) =>
      `<td>${head}${(cells.get(key) ?? [])
        .map(
          (post) =>
            `<div data-post="${post.id}">${isLanes ? '' : `<span>${post.callSign}</span>`}<span>${post.time}</span><span>${STAGE_LABELS[post.stage]}</span><p>${post.title}</p>${post.missing ? `<b>${post.missing}</b>` : ''}</div>`,
        )
        .join('')}</td>`;
    const days = (week: number) => Array.from({ length: 7 }, (_, day) => addDays(first, week * 7 + day));
    const rows = isLanes
      ? CHANNELS.map(
          (channel) =>
            `<tr><th>${channel.name}</th>${days(0)
              .map((date) => cell(`${channel.id} ${date}`, ''))
              .join('')}</tr>`,
        )
      : Array.from(
          { length: MONTH_DAYS / 7 },
          (_, week) =>
            `<tr>${days(week)
              .map((date) => cell(date, `<b>${Number(date.slice(8))}</b>`))
              .join('')}</tr>`,
        );
    place.innerHTML = `<table style="width:100%;table-layout:fixed">${rows.join('')}</table>`;
  },
  unmount: () => void (place.innerHTML = ''),
  next: () => undefined,
});
