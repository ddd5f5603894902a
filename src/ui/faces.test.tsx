import { renderToStaticMarkup } from 'react-dom/server';
import { describe, expect, it, vi } from 'vitest';
import type { Slip } from '@/core/calendar/slip';
import { testSlip } from '@/core/calendar/testSlip';
import type { Reach } from '@/core/rhythm/horizon';
import { STAGES } from '@/core/stages/stages';
import { CallSign } from './CallSign';
import { CroppedPicture } from './CroppedPicture';
import { HorizonBar, reachWords } from './HorizonBar';
import { Marked, MarkedText } from './MarkedText';
import { Notches } from './Notches';
import { Progress, progressWords } from './Progress';
import { SlipFace, slipClass } from './SlipFace';
import { Weekdays } from './Weekdays';

const slip = testSlip({
  thumb: 'f'.repeat(64),
  progress: [
    { work: 'words', done: 2, all: 3 },
    { work: 'picture', done: 0, all: 2 },
  ],
  nextWork: 'words',
});
const face = (change: Partial<Slip> = {}, look: Partial<Parameters<typeof SlipFace>[0]> = {}) =>
  renderToStaticMarkup(<SlipFace slip={{ ...slip, ...change }} color="#2E7D50" {...look} />);

describe('a slip', () => {
  it('shows call sign, time, stage, title, picture and progress', () => {
    const html = face();
    expect(html).toContain('>GR<');
    expect(html).toContain('>14:30<');
    expect(html).toContain('aria-label="production"');
    expect(html).toContain('>Dome night<');
    expect(html).toContain(`/api/media/${slip.thumb}?size=thumb`);
    expect(html).toContain('aria-label="words 2 of 3, picture 0 of 2"');
  });

  it('says where its time is open, and shows none without a day', () => {
    expect(face({ time: null })).toContain('no time');
    expect(face({ date: null, time: null })).not.toContain('slip-time');
    expect(face({ date: null, time: null }, { day: 'no date' })).toContain('no date');
  });

  it('says in a word what it lacks, unless its delivery tells worse', () => {
    expect(face({ missing: 'no picture' })).toContain('no picture');
    const delivery = { mode: 'automatic', state: 'failed', leaving: false } as const;
    const failed = face({ missing: 'no picture', stage: 'scheduled', delivery });
    expect(failed).toContain('>failed<');
    expect(failed).toContain('aria-label="scheduled, delivery failed"');
    expect(failed).not.toContain('no picture');
    expect(face({ stage: 'scheduled', delivery: { ...delivery, state: 'held' } })).toContain('>on hold<');
    expect(face({ stage: 'scheduled', delivery: { ...delivery, state: 'unknown' } })).toContain('>may be published<');
    expect(face({ stage: 'scheduled', delivery: { ...delivery, state: 'waiting', awaitsRelease: true } })).toContain(
      '>waits to be released<',
    );
  });

  it('shows progress until it is ready', () => {
    expect(face({ stage: 'signOff' })).toContain('progress-line');
    expect(face({ stage: 'ready' })).not.toContain('progress-line');
    expect(face({ progress: [] })).not.toContain('progress-line');
  });

  it('as a line has time and notches, and its title for those who listen', () => {
    const html = face({ missing: 'no picture' }, { density: 'line', more: ['Ines'] });
    expect(html).toContain('<span dir="auto" class="visually-hidden">Dome night</span>');
    expect(html).not.toContain('no picture');
    expect(html).not.toContain('<img');
    expect(html).not.toContain('Ines');
  });

  it('shows the facts that were chosen, and further ones in a soft line', () => {
    const html = face({}, { shows: new Set(['title']), more: ['format', 'Ines', ''] });
    expect(html).toContain('photo · Ines');
    expect(html).not.toContain('14:30');
    expect(html).not.toContain('notches');
  });

  it('leaves its call sign to the lane', () => expect(face({}, { withSign: false })).not.toContain('>GR<'));

  it('marks a title that needs room', () => {
    expect(face({ title: 'x'.repeat(31) })).toContain('slip-title is-long');
    expect(face({ title: 'x'.repeat(30) })).not.toContain('is-long');
  });

  it.each([
    [{}, {}, 'slip has-thumb'],
    [{ missing: 'no picture', thumb: null }, {}, 'slip is-lacking'],
    [{}, { line: true, open: true, unsaved: true }, 'slip is-open is-unsaved is-line'],
    [{ thumb: null }, { picked: true, extra: true, band: true }, 'slip is-picked is-extra has-band'],
  ])('has a ground that tells how it stands', (change, marks, expected) =>
    expect(slipClass({ ...slip, ...change }, marks)).toBe(expected),
  );
});

describe('notches', () => {
  it.each(STAGES.map((stage, index) => [stage, index + 1] as const))('of %s are %i', (stage, count) =>
    expect(renderToStaticMarkup(<Notches stage={stage} />)).toContain(`are-${count}"`),
  );
  it('are named for those who do not see them', () =>
    expect(renderToStaticMarkup(<Notches stage="signOff" />)).toContain('role="img" aria-label="sign-off"'));
});

describe('progress', () => {
  it('is said in words', () => expect(progressWords(slip.progress)).toBe('words 2 of 3, picture 0 of 2'));
  it('draws a stretch for each sort of work, filled as far as it is done', () => {
    const html = renderToStaticMarkup(<Progress progress={slip.progress} />);
    // Two of five steps are words done; words end after three of five.
    expect(html).toContain('calc(40% + 0px)');
    expect(html).toContain('calc(60% - 3px)');
    expect(html).toContain('calc(100% + 0px)');
  });
  it('draws nothing of nothing', () => expect(renderToStaticMarkup(<Progress progress={[]} />)).toBe(''));
});

describe('a horizon', () => {
  const to = (date: string, days: number): Reach => ({ kind: 'filledTo', to: date, days, gap: null });
  const today = '2026-11-23';

  it.each([
    [{ kind: 'noRhythm' } as Reach, 'no rhythm'],
    [{ kind: 'gapToday', days: 0, gap: 'k' } as Reach, 'opening today'],
    [to('2026-11-23', 1), 'filled until today'],
    [to('2026-12-04', 11), 'filled until 4 Dec'],
  ])('is said in words', (reach, words) => expect(reachWords(reach, today)).toBe(words));

  it('is drawn against its aim, never longer than that', () => {
    const horizon = { channelId: 'c', planned: to('2027-01-20', 58), solid: to('2026-11-29', 7), aimDays: 14 };
    const html = renderToStaticMarkup(<HorizonBar horizon={horizon} today={today} />);
    expect(html).toContain('class="is-planned" style="width:100%"');
    expect(html).toContain('class="is-solid" style="width:50%"');
    expect(html).toContain('Solid: filled until 29 Nov. Aim: 14 days.');
    expect(html).toContain('class="soft"');
  });

  it('is called wrong where it reaches less than half its aim', () => {
    const horizon = { channelId: 'c', planned: to('2026-11-28', 6), solid: to('2026-11-24', 2), aimDays: 14 };
    expect(renderToStaticMarkup(<HorizonBar horizon={horizon} today={today} short />)).toContain(
      '<span class="wrong">28 Nov</span>',
    );
  });

  it('of a channel without a rhythm has no bar', () => {
    const horizon = {
      channelId: 'c',
      planned: { kind: 'noRhythm' },
      solid: { kind: 'noRhythm' },
      aimDays: 14,
    } as const;
    expect(renderToStaticMarkup(<HorizonBar horizon={horizon} today={today} />)).not.toContain('horizon-bar');
    expect(renderToStaticMarkup(<HorizonBar horizon={undefined} today={today} />)).toBe('');
  });
});

describe('a marked text', () => {
  const marked = (foldAt: number | null, overAt: number | null, from = 0) =>
    renderToStaticMarkup(<Marked text="0123456789" foldAt={foldAt} overAt={overAt} from={from} />);

  it.each([
    ['whole', null, null, '0123456789<span class="past-fold"></span>'],
    ['with a fold', 4, null, '0123<span class="fold-line"></span><span class="past-fold">456789</span>'],
    ['over the limit', null, 7, '0123456<span class="past-fold"></span><span class="past-limit">789</span>'],
    [
      'with both',
      4,
      7,
      '0123<span class="fold-line"></span><span class="past-fold">456</span><span class="past-limit">789</span>',
    ],
    ['with a fold behind the limit', 8, 5, '01234<span class="past-fold"></span><span class="past-limit">56789</span>'],
    ['with a fold beyond it', 40, null, '0123456789<span class="past-fold"></span>'],
  ])('is drawn %s', (_name, fold, over, html) => expect(marked(fold, over)).toBe(html));

  it('that goes on behind another is marked from where it begins', () => {
    expect(marked(24, null, 20)).toBe('0123<span class="fold-line"></span><span class="past-fold">456789</span>');
    expect(marked(10, null, 20)).toBe('<span class="past-fold">0123456789</span>');
  });

  it('is a field with a name, on one line where it is one', () => {
    const html = renderToStaticMarkup(
      <MarkedText label="Title" value="Rings" onType={vi.fn()} foldAt={null} overAt={3} oneLine placeholder="What?" />,
    );
    expect(html).toContain('aria-label="Title"');
    expect(html).toContain('rows="1"');
    expect(html).toContain('class="marked is-over"');
  });

  it('marks what nobody has read, over the fold and the limit', () => {
    const html = renderToStaticMarkup(
      <Marked text="Come and see. The rings are back." foldAt={20} overAt={28} unread={[{ start: 14, end: 33 }]} />,
    );
    expect(html.replace(/<span class="past-(fold|limit)">/g, '<$1>').replace(/<span class="unread">/g, '_')).toBe(
      'Come and see. _The ri</span><span class="fold-line"></span><fold>_ngs are </span></span><limit>_back.</span></span>',
    );
  });
});

describe('a picture', () => {
  it('shows the part that goes out, in its shape', () => {
    const html = renderToStaticMarkup(
      <CroppedPicture
        sha256="abc"
        alt="The dome"
        crop={{ x: 0.25, y: 0.5, width: 0.5, height: 0.25 }}
        size={{ width: 400, height: 100 }}
      />,
    );
    expect(html).toContain('aspect-ratio:400 / 100');
    expect(html).toContain('width:200%;left:-50%;top:-200%');
    expect(html).toContain('alt="The dome"');
  });
  it('shows whole without a crop', () =>
    expect(
      renderToStaticMarkup(<CroppedPicture sha256="abc" alt="" crop={null} size={{ width: 4, height: 3 }} />),
    ).toContain('width:100%;left:0;top:0'));
});

describe('small parts', () => {
  it('a call sign carries the colour of its channel and its name', () =>
    expect(renderToStaticMarkup(<CallSign sign="GR" color="#2E7D50" name="Glassrow" />)).toBe(
      '<span class="call-sign" style="--channel:#2E7D50" title="Glassrow">GR</span>',
    ));
  it('weekdays are ticked from Monday to Sunday', () => {
    const html = renderToStaticMarkup(<Weekdays legend="Works on" chosen={[1, 7]} onChange={vi.fn()} />);
    expect(html.match(/checked=""/g)).toHaveLength(2);
    expect([...html.matchAll(/ (\w{3})<\/label>/g)].map(([, day]) => day).join(' ')).toBe(
      'Mon Tue Wed Thu Fri Sat Sun',
    );
  });
});
