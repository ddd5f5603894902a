'use client';

import { Dialog } from '@/ui/Dialog';

const SHORTCUTS: { where: string; keys: [string, string][] }[] = [
  {
    where: 'Everywhere',
    keys: [
      ['i', 'catch an idea'],
      ['Ctrl or Cmd + K', 'find and do'],
      ['u', 'what the last message offers, as Undo'],
      ['Ctrl or Cmd + Z', 'undo what you did last: posts, pieces, ideas, steps, shelf, settings; with Shift, redo it'],
      ['?', 'these shortcuts'],
    ],
  },
  {
    where: 'On the calendar',
    keys: [
      ['1 – 5', 'lanes, month, day, stages, list'],
      ['[ and ]', 'earlier and later period'],
      ['0', 'today'],
      ['n', 'new post'],
      ['/', 'find words in titles and captions'],
      ['m', 'move the open post'],
      ['s', 'to the open post, and back to where it stands'],
      ['Escape', 'put the picks down, close the post'],
    ],
  },
  {
    where: 'In a text',
    keys: [
      ['Ctrl or Cmd + .', 'insert from the shelf, or a name'],
      ['Ctrl or Cmd + Z', 'a step back, also after a reload; with Shift, forward'],
    ],
  },
  {
    where: 'On a slip',
    keys: [
      ['Enter', 'open; on an opening, start a post'],
      ['Space', 'lift, and drop'],
      ['arrows', 'while lifted: by day, lane, hour or stage'],
      ['Home', 'while lifted: to the tray'],
      ['Escape', 'while lifted: put back'],
      ['x', 'pick, or put down; with Shift, all from the last one picked'],
      ['Ctrl or Cmd + click', 'pick; with Shift, a range; draw a box for many'],
    ],
  },
];

/** The shortcuts there are. */
export function Shortcuts({ onClose }: { onClose: () => void }) {
  return (
    <Dialog title="Shortcuts" onClose={onClose}>
      {SHORTCUTS.map(({ where, keys }) => (
        <section key={where} className="shortcuts">
          <h3>{where}</h3>
          <dl>
            {keys.map(([key, deed]) => (
              <div key={key}>
                <dt className="figures">{key}</dt>
                <dd>{deed}</dd>
              </div>
            ))}
          </dl>
        </section>
      ))}
    </Dialog>
  );
}
