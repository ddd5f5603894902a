// @vitest-environment jsdom
import { cleanup, fireEvent, screen, waitFor, within } from '@testing-library/react';
import { afterEach, describe, expect, it, vi } from 'vitest';
import { BLANK_STEP } from '@/core/prep/step';
import type { Role } from '@/core/rights/may';
import type { PostSheet, SheetStep } from '@/core/posts/sheet';
import type { Block } from '@/core/posts/readiness';
import type { DraftedMark } from '@/core/posts/unread';
import type { Want } from '@/core/posts/wants';
import { renderScreen, SHELL } from '@/ui/testScreen';
import { Deeds } from './Deeds';
import { Missing } from './Missing';
import { Notes } from './Notes';
import { PrepSteps, type WritePrep } from './PrepSteps';
import { SignOffLine } from './SignOffLine';
import { StepForm } from './StepForm';
import { WhatBecameOfIt } from './WhatBecameOfIt';
import type { PostEditor, Texts } from './usePostEditor';

afterEach(() => {
  cleanup();
  vi.unstubAllGlobals();
});

const step = (change: Partial<SheetStep>): SheetStep => ({
  ...BLANK_STEP,
  id: 's',
  title: 'Edit',
  ownerId: 'dea',
  day: '2026-11-25',
  pinned: null,
  plannedOn: '2026-11-20',
  doneOn: null,
  doneBy: null,
  version: 3,
  ...change,
});
const sheet = (change: Partial<PostSheet> = {}): PostSheet =>
  ({
    id: 'a',
    title: 'Rings',
    stage: 'drafting',
    date: '2026-12-01',
    time: '10:00',
    version: 4,
    address: '',
    archived: false,
    pictures: [],
    steps: [],
    signOff: { state: 'notAsked', last: null },
    delivery: null,
    ...change,
  }) as PostSheet;

/** An editor that only notes what it is asked to change, and answers as it is told. */
function fakeEditor(answer: object = { kind: 'done', value: { outcome: {}, sheet: sheet(), slip: {} } }) {
  const asked: { method: string; path: string; body: object }[] = [];
  const editor = {
    conflicts: [],
    texts: {},
    type: vi.fn(),
    change: async (method: string, path: string, body: object | ((version: number) => object)) => {
      asked.push({ method, path, body: typeof body === 'function' ? body(4) : body });
      return answer;
    },
  } as unknown as PostEditor;
  return { editor, asked };
}

describe('prep on a sheet', () => {
  const write = vi.fn<WritePrep>(async () => true);
  const draw = (steps: SheetStep[]) => {
    write.mockClear();
    renderScreen(
      <PrepSteps steps={steps} path="/api/posts/a/steps" write={write} renew={{ label: 'Take those', run: vi.fn() }} />,
    );
    return screen.getByRole('region', { name: 'Prep' });
  };

  it('says who does each step when, and what is late, squeezed or open', () => {
    const region = draw([
      step({ id: '1', title: 'Write', day: '2026-11-20', plannedOn: '2026-11-10' }),
      step({ id: '2', title: 'Record', day: '2026-11-21', plannedOn: '2026-11-22' }),
      step({ id: '3', title: 'Edit', ownerId: null, craft: 'assistant' }),
      step({ id: '4', title: 'Send', doneOn: '2026-11-19', doneBy: 'mana' }),
    ]);
    expect(region.textContent).toContain('1 of 4');
    expect(region.textContent).toContain('1 with too little time, 1 late');
    const rows = within(region)
      .getAllByRole('listitem')
      .map(({ textContent }) => textContent);
    expect(rows).toEqual([
      'WriteDeaFri 20 Novlate',
      'RecordDeaSat 21 Novtoo little time',
      'Editan assistantWed 25 Nov',
      'SendMana for DeaWed 25 Nov',
    ]);
  });

  it('is ticked', async () => {
    draw([step({})]);
    fireEvent.click(screen.getByLabelText('Done: Edit'));
    await waitFor(() => expect(write).toHaveBeenCalledWith('POST', '/api/steps/s', { done: true }));
  });

  it('shows a pin, and takes it off', () => {
    draw([step({ pinned: '2026-11-25' })]);
    fireEvent.click(screen.getByRole('button', { name: 'Unpin Edit' }));
    expect(write).toHaveBeenCalledWith('PATCH', '/api/steps/s', { version: 3, pinned: null });
  });

  it('names a pin that breaks the order', () => {
    const region = draw([
      step({ id: '1', title: 'Write', pinned: '2026-11-30', day: '2026-11-30' }),
      step({ id: '2', title: 'Edit', day: '2026-11-25' }),
    ]);
    expect(region.textContent).toContain('Pinned after a step that comes later in the order.');
  });

  it('is changed and put in order in its form', () => {
    draw([step({ id: '1', title: 'Write' }), step({ id: '2', title: 'Edit' })]);
    fireEvent.click(screen.getByRole('button', { name: 'Edit' }));
    fireEvent.change(screen.getByLabelText('What the step is'), { target: { value: 'Cut' } });
    fireEvent.click(screen.getByRole('button', { name: 'Change the step' }));
    expect(write).toHaveBeenCalledWith(
      'PATCH',
      '/api/steps/2',
      expect.objectContaining({ version: 3, title: 'Cut', ownerId: 'dea' }),
    );
    fireEvent.click(screen.getByRole('button', { name: 'Move earlier' }));
    expect(write).toHaveBeenCalledWith('PATCH', '/api/posts/a/steps', { ids: ['2', '1'] });
    fireEvent.click(screen.getByRole('button', { name: 'Remove' }));
    expect(write).toHaveBeenCalledWith('DELETE', '/api/steps/2', {});
  });

  it('is added to', async () => {
    draw([]);
    fireEvent.click(screen.getByRole('button', { name: 'Add a step' }));
    fireEvent.change(screen.getByLabelText('What the step is'), { target: { value: 'Ask' } });
    fireEvent.click(screen.getByRole('button', { name: 'Add the step' }));
    await waitFor(() =>
      expect(write).toHaveBeenCalledWith(
        'POST',
        '/api/posts/a/steps',
        expect.objectContaining({ title: 'Ask', lead: 1 }),
      ),
    );
  });
});

describe('the form of a step', () => {
  const open = (line = BLANK_STEP) => {
    const onSave = vi.fn();
    const onClose = vi.fn();
    renderScreen(<StepForm step={line} deed="Keep" onSave={onSave} onClose={onClose} />);
    const saved = () => {
      fireEvent.click(screen.getByRole('button', { name: 'Keep' }));
      return onSave.mock.calls.at(-1)![0] as typeof BLANK_STEP;
    };
    return { saved, onClose };
  };
  const choose = (label: string | RegExp, value: string) =>
    fireEvent.change(screen.getByLabelText(label), { target: { value } });

  it('names a person, a craft, or whoever owns the post', () => {
    const { saved } = open();
    choose(/^who/, 'dea');
    expect(saved()).toMatchObject({ ownerId: 'dea', craft: null });
    choose(/^who/, 'craft:designer');
    expect(saved()).toMatchObject({ ownerId: null, craft: 'designer' });
    choose(/^who/, '');
    expect(saved()).toMatchObject({ ownerId: null, craft: null });
  });

  it('counts days before or after publishing', () => {
    const { saved } = open();
    choose('Days', '3');
    choose('Kind of days', 'calendar');
    expect(saved()).toMatchObject({ lead: 3, leadIn: 'calendar' });
    choose('Before or after publishing', 'after');
    expect(saved().lead).toBe(-3);
    choose('Days', '5');
    expect(saved().lead).toBe(-5);
    choose('Before or after publishing', 'before');
    expect(saved().lead).toBe(5);
  });

  it('takes minutes or none, a note, and whether it is needed', () => {
    const { saved } = open();
    choose(/^minutes/, '45');
    choose('Note', 'In the dome');
    fireEvent.click(screen.getByLabelText(/needed before/));
    expect(saved()).toMatchObject({ minutes: 45, note: 'In the dome', needed: true });
    choose(/^minutes/, '');
    expect(saved().minutes).toBeNull();
  });

  it('is closed by Escape', () => {
    const { onClose } = open();
    fireEvent.keyDown(screen.getByLabelText('What the step is'), { key: 'Escape' });
    expect(onClose).toHaveBeenCalled();
  });
});

describe('what is missing', () => {
  const block: Block = { code: 'noPicture', field: 'pictures', short: 'no picture', message: 'Needs a picture.' };
  const want: Want = { key: 'step:s', field: 'prep', short: 'prep not done', message: '“Edit” is not done.' };
  const draw = (
    blocks: Block[],
    wants: Want[],
    role: Role = 'manager',
    editor = fakeEditor(),
    unread: readonly DraftedMark[] = [],
  ) => {
    renderScreen(
      <div className="sheet">
        <ul>
          <li data-step="s">
            <input aria-label="Done: Edit" />
          </li>
        </ul>
        <textarea data-field="caption" aria-label="Caption" />
        <Missing blocks={blocks} wants={wants} unread={unread} editor={editor.editor} postId="a" pieceId="p" />
      </div>,
      { me: { ...SHELL.me, role } },
    );
    return editor;
  };

  it('is not shown where nothing is', () => {
    draw([], []);
    expect(screen.queryByRole('region', { name: 'What is missing' })).toBeNull();
  });

  it('is counted, and leads to its place', () => {
    draw([block], [want]);
    expect(screen.getByText('2 things before it can be sent:')).toBeTruthy();
    fireEvent.click(screen.getByRole('button', { name: '“Edit” is not done.' }));
    expect(document.activeElement).toBe(screen.getByLabelText('Done: Edit'));
  });

  it('of a draft that is not read shows the sentences, leads to them, and takes that they look right', async () => {
    const unread = {
      key: 'unread',
      field: 'words',
      short: 'draft not read',
      message: 'A drafted sentence is not read.',
    } as const;
    const { asked } = draw([], [unread], 'maker', fakeEditor(), [{ field: 'caption', text: 'Read the rest:' }]);
    expect(screen.getByText('“Read the rest:”')).toBeTruthy();
    fireEvent.click(screen.getByRole('button', { name: 'A drafted sentence is not read.' }));
    expect(document.activeElement).toBe(screen.getByLabelText('Caption'));
    fireEvent.click(screen.getByRole('button', { name: 'Looks right' }));
    await waitFor(() => expect(asked[0]?.body).toEqual({ deed: 'looksRight', version: 4 }));
  });

  it('may be let go by a manager with a reason, as far as only the team wants it', async () => {
    const { asked } = draw([], [want]);
    fireEvent.click(screen.getByRole('button', { name: 'Waive a requirement…' }));
    fireEvent.change(screen.getByLabelText('Why it is waived'), { target: { value: 'Filmed so' } });
    fireEvent.click(screen.getByRole('button', { name: 'Waive' }));
    await waitFor(() => expect(asked[0]?.body).toEqual({ deed: 'waive', version: 4, reason: 'Filmed so' }));
  });

  it('is nothing a maker lets go, nor what the network would refuse', () => {
    draw([], [want], 'maker');
    expect(screen.queryByRole('button', { name: /^Waive/ })).toBeNull();
    cleanup();
    draw([block], []);
    expect(screen.queryByRole('button', { name: /^Waive/ })).toBeNull();
  });
});

describe('sign-off', () => {
  const last = { by: 'dea', at: '2026-11-23T10:00:00.000Z' };
  const draw = (signOff: PostSheet['signOff'], role: Role = 'reviewer', change: Partial<PostSheet> = {}) => {
    const { editor, asked } = fakeEditor();
    renderScreen(<SignOffLine editor={editor} sheet={sheet({ signOff, ...change })} />, {
      me: { ...SHELL.me, role },
    });
    return asked;
  };

  it('is silent where the brand does not ask for it', () => {
    draw({ state: 'notAsked', last: null });
    expect(screen.queryByRole('region')).toBeNull();
  });

  it('is given by a reviewer', async () => {
    const asked = draw({ state: 'missing', last: null });
    fireEvent.click(screen.getByRole('button', { name: 'Sign off' }));
    await waitFor(() => expect(asked[0]?.body).toEqual({ deed: 'signOff', version: 4 }));
  });

  it('says by whom and when it was given, and is taken back', async () => {
    const asked = draw({ state: 'given', last }, 'manager');
    expect(screen.getByRole('region').textContent).toContain('Signed off by Dea, 23 Nov 10:00');
    fireEvent.click(screen.getByRole('button', { name: 'Withdraw sign-off' }));
    await waitFor(() => expect(asked[0]?.body).toEqual({ deed: 'takeSignOffBack', version: 4 }));
    cleanup();
    draw({ state: 'given', last }, 'reviewer');
    expect(screen.queryByRole('button')).toBeNull();
    cleanup();
    draw({ state: 'given', last: { ...last, by: SHELL.me.id } }, 'reviewer');
    expect(screen.getByRole('button', { name: 'Withdraw sign-off' })).toBeTruthy();
  });

  it('says when it holds no more', () => {
    draw({ state: 'outdated', last });
    expect(screen.getByRole('region').textContent).toContain('Changed since it was signed off by Dea');
  });

  it('is nothing a maker gives, nor given to what is out', () => {
    draw({ state: 'missing', last: null }, 'maker');
    expect(screen.queryByRole('button')).toBeNull();
    cleanup();
    draw({ state: 'missing', last: null }, 'reviewer', { stage: 'published' });
    expect(screen.queryByRole('button')).toBeNull();
  });
});

describe('the deeds of a post', () => {
  const delivery = {
    mode: 'automatic',
    state: 'waiting',
    unsure: false,
    attempts: 0,
    dueAt: '2026-12-01T10:00:00.000Z',
    nextTryAt: '2026-12-01T10:00:00.000Z',
    words: '',
    copiedAt: '2026-11-23T09:00:00.000Z',
    differs: false,
    copy: { headline: '', caption: 'As it was', hashtags: '', link: '' },
  } as NonNullable<PostSheet['delivery']>;
  const onUndo = vi.fn();
  const draw = (change: Partial<PostSheet>, blocks: Block[] = [], editor = fakeEditor()) => {
    renderScreen(
      <Deeds
        editor={editor.editor}
        sheet={sheet(change)}
        channel={SHELL.channels[0]!}
        blocks={blocks}
        wants={[]}
        onGone={vi.fn()}
        onUndo={onUndo}
      />,
    );
    return editor.asked;
  };
  const press = (name: string | RegExp) => fireEvent.click(screen.getByRole('button', { name }));

  it('begin with scheduling, named by the moment', async () => {
    const asked = draw({});
    press('Schedule for Tue 1 Dec 10:00');
    await waitFor(() =>
      expect(asked).toEqual([{ method: 'POST', path: '/api/posts/a/deeds', body: { deed: 'schedule', version: 4 } }]),
    );
  });

  it('do not schedule what has no time, or is not fit', () => {
    draw({ time: null });
    expect(screen.getByRole('button', { name: 'Schedule' }).hasAttribute('disabled')).toBe(true);
    expect(screen.getByText('To schedule it, give it a date and a time.')).toBeTruthy();
    cleanup();
    draw({}, [{ code: 'noPicture', field: 'pictures', short: '', message: '' }]);
    expect(screen.getByRole('button', { name: /^Schedule for/ }).hasAttribute('disabled')).toBe(true);
    expect(screen.getByRole('button', { name: 'Publish now' }).hasAttribute('disabled')).toBe(true);
  });

  it('of a scheduled post say when it leaves', () => {
    draw({ stage: 'scheduled', delivery });
    expect(screen.getByText(/Will be sent Tue 1 Dec 10:00 \(Lisbon\s+time\)\./)).toBeTruthy();
  });

  it('of one that waits since a restore say what it waits for', () => {
    draw({ stage: 'scheduled', delivery: { ...delivery, awaitsRelease: true } });
    expect(screen.getByText(/Will be sent Tue 1 Dec 10:00 \(Lisbon\s+time\), once it is released\./)).toBeTruthy();
  });

  it('of one whose words changed since take the old ones back, or schedule the new', async () => {
    const asked = draw({ stage: 'scheduled', delivery: { ...delivery, differs: true } });
    press('Restore the scheduled text');
    await waitFor(() =>
      expect(asked[0]).toEqual({
        method: 'PATCH',
        path: '/api/posts/a',
        body: { version: 4, headline: '', caption: 'As it was', hashtags: '', link: '', parts: [] },
      }),
    );
    press('Schedule with these words');
    await waitFor(() => expect(asked[1]?.body).toEqual({ deed: 'schedule', version: 4 }));
  });

  it.each([
    ['failed', 'Try again now'],
    ['held', 'Send it now'],
  ] as const)('of one that %s offer to %s', async (state, name) => {
    const asked = draw({ stage: 'scheduled', delivery: { ...delivery, state } });
    press(name);
    await waitFor(() => expect(asked[0]?.body).toMatchObject({ deed: 'tryAgain' }));
  });

  it('ask for the address of what is out, and for a reason to set aside', async () => {
    const asked = draw({});
    press('Mark as published…');
    fireEvent.change(screen.getByLabelText('Its address, once it is published'), {
      target: { value: 'https://pithline.example/1' },
    });
    press('Mark as published');
    await waitFor(() =>
      expect(asked[0]?.body).toMatchObject({ deed: 'declareOut', address: 'https://pithline.example/1' }),
    );
    // The deeds are shut until the one before is answered.
    await waitFor(() =>
      expect(screen.getByRole('button', { name: 'Set aside…' }).hasAttribute('disabled')).toBe(false),
    );
    press('Set aside…');
    fireEvent.change(screen.getByLabelText('Why it is set aside'), { target: { value: 'Rain' } });
    press('Set aside');
    await waitFor(() => expect(asked[1]?.body).toMatchObject({ deed: 'setAside', reason: 'Rain' }));
  });

  it('correct where and when a post went out by a person’s word, and not by a network’s', async () => {
    const said = { stage: 'published', address: 'https://pithline.example/1', publishedAt: '2026-11-20T10:00:00.000Z' };
    const asked = draw({ ...said, delivery: null } as Parameters<typeof draw>[0]);
    press('Correct where and when…');
    fireEvent.click(screen.getByLabelText(/^It has none/));
    press('It went out at another time…');
    fireEvent.change(screen.getByLabelText('Time'), { target: { value: '11:30' } });
    press('Correct it');
    await waitFor(() =>
      expect(asked[0]?.body).toMatchObject({ deed: 'correctOut', address: '', date: '2026-11-20', time: '11:30' }),
    );
    cleanup();
    draw({ ...said, delivery: { ...delivery, state: 'sent' } } as Parameters<typeof draw>[0]);
    expect(screen.queryByRole('button', { name: 'Correct where and when…' })).toBeNull();
  });

  it('that destroy are undone from the message that reports them', async () => {
    const answer = { sheet: sheet({}), slip: {}, outcome: { changeId: 'c' } };
    draw({ caption: 'All of it.', pictures: [] }, [], fakeEditor({ kind: 'done', value: answer }));
    press('Delete');
    await screen.findByText(/^Deleted “Rings”/);
    press('Undo');
    expect(onUndo.mock.calls).toEqual([['c']]);
  });

  it('that are refused say why', async () => {
    draw({}, [], fakeEditor({ kind: 'refused', refusal: { code: 'past', message: 'That has passed.' } }));
    press(/^Schedule for/);
    expect(await screen.findByText('That has passed.')).toBeTruthy();
  });

  it('of a published post lead to it and archive it', async () => {
    const asked = draw({ stage: 'published', address: 'https://pithline.example/1' });
    expect(screen.getByRole('link', { name: 'See it on Pithline' }).getAttribute('href')).toBe(
      'https://pithline.example/1',
    );
    press('Archive');
    await waitFor(() => expect(asked[0]?.body).toMatchObject({ deed: 'archive' }));
  });

  it('of one set aside bring it back', async () => {
    const asked = draw({ stage: 'setAside' });
    press('Bring back');
    await waitFor(() => expect(asked[0]?.body).toMatchObject({ deed: 'bringBack' }));
  });
});

describe('the notes of a post', () => {
  it('of a video are its script with the time it takes, and ideas for its cover', () => {
    const { editor } = fakeEditor();
    const texts = { script: `One two three. [pause] ${'word '.repeat(147)}`, coverIdeas: '' } as Texts;
    renderScreen(<Notes editor={editor} texts={texts} format="longVideo" disabled={false} />);
    expect(screen.getByText('1 min')).toBeTruthy();
    expect(screen.getByText('150 words at 150 a minute')).toBeTruthy();
    fireEvent.change(screen.getByLabelText(/^Cover ideas/), { target: { value: 'The dome' } });
    expect(editor.type).toHaveBeenCalledWith('coverIdeas', 'The dome');
  });
  it('of a text are none', () => {
    const { editor } = fakeEditor();
    renderScreen(<Notes editor={editor} texts={{} as Texts} format="text" disabled={false} />);
    expect(screen.queryByRole('textbox')).toBeNull();
  });
});

describe('a copy that may be out', () => {
  const told = (change: Partial<PostSheet>, copy: Partial<PostSheet['maybeOut'][number]> = {}) => {
    const since = '2026-11-26T14:30:00.000Z';
    const maybeOut = [{ network: 'pithline', networkName: 'Pithline', since, isTried: true, isAsked: true, ...copy }];
    renderScreen(
      <WhatBecameOfIt
        editor={fakeEditor().editor}
        sheet={sheet({ maybeOut, ...change })}
        zone="UTC"
        onOpen={vi.fn()}
      />,
    );
    return screen.getByRole('status').textContent;
  };
  it('is said to have been tried, and can be marked as published', () =>
    expect(told({})).toMatch(/^It may be published\. A try on Pithline got no answer .*mark it as published/));
  it('of a published post may be a second one', () =>
    expect(told({ stage: 'published' })).toMatch(/^It may be published twice\..*It is published once$/));
  it('of a restored folder was perhaps never tried', () =>
    expect(told({}, { isTried: false })).toContain('The data was restored (26 Nov 14:30), and what Pithline has'));
});
