// @vitest-environment jsdom
import { cleanup, fireEvent, screen, waitFor } from '@testing-library/react';
import { afterEach, describe, expect, it, vi } from 'vitest';
import { testSlip } from '@/core/calendar/testSlip';
import type { WrittenField } from '@/core/posts/texts';
import { fakeServer, renderScreen, SHELL } from '@/ui/testScreen';
import { RowTexts, RowTextsProvider } from './rowTexts';
import { TextCell } from './TextCell';
import { TimetableProvider, type Timetable } from './timetable';

afterEach(cleanup);

const slip = testSlip({ id: 'a', title: 'Rings', channelId: 'pl', format: 'text', version: 4 });
const timetable = { channels: new Map(SHELL.channels.map((one) => [one.id, one])) } as unknown as Timetable;
const onWritten = vi.fn();

function draw(field: WrittenField, text: string, { isOut = false, cut = [] as WrittenField[] } = {}) {
  onWritten.mockClear();
  const texts = new RowTexts();
  texts.learn([{ id: 'a', version: 4, texts: { [field]: text }, cut, address: '', publishedAt: null }]);
  const drawn = renderScreen(
    <TimetableProvider value={timetable}>
      <RowTextsProvider value={texts}>
        <TextCell slip={slip} field={field} isOut={isOut} isInUse onWritten={onWritten} />
      </RowTextsProvider>
    </TimetableProvider>,
  );
  return Object.assign(texts, { unmount: drawn.unmount });
}

describe('a text in its row', () => {
  it('is written there, and known by the row at its new version', async () => {
    const server = fakeServer(() => ({ value: { slip: { ...slip, version: 5 } } }));
    const texts = draw('caption', 'Look up.');
    fireEvent.click(screen.getByRole('button', { name: 'Caption of Rings: Look up.. Change' }));
    const field = screen.getByRole('textbox', { name: 'Caption of Rings' });
    fireEvent.change(field, { target: { value: 'Look up tonight.' } });
    fireEvent.blur(field);
    await waitFor(() => expect(onWritten).toHaveBeenCalledWith({ ...slip, version: 5 }));
    expect(server.calls.map(({ method, path, body }) => [method, path, body])).toEqual([
      ['PATCH', '/api/posts/a', { version: 4, caption: 'Look up tonight.' }],
    ]);
    expect(texts.of('a')).toMatchObject({ version: 5, texts: { caption: 'Look up tonight.' } });
    expect(texts.lacking([{ ...slip, version: 5 }])).toEqual([]);
    expect(screen.queryByRole('textbox')).toBeNull();
  });

  it('keeps what was typed where it is refused', async () => {
    fakeServer(() => ({ refusal: { code: 'stale', message: 'Somebody else changed it.' } }));
    draw('caption', 'Look up.');
    fireEvent.click(screen.getByRole('button'));
    const field = screen.getByRole<HTMLTextAreaElement>('textbox');
    fireEvent.change(field, { target: { value: 'Mine' } });
    fireEvent.blur(field);
    await waitFor(() => expect(screen.getByText('Somebody else changed it.')).toBeTruthy());
    expect(field.value).toBe('Mine');
    fireEvent.keyDown(field, { key: 'Escape' });
    expect(screen.queryByRole('textbox')).toBeNull();
  });

  it('is saved when its row goes out of sight, and stays typed where that is refused', async () => {
    let isRefused = false;
    const server = fakeServer(() =>
      isRefused ? { refusal: { code: 'stale', message: 'No.' } } : { value: { slip: { ...slip, version: 5 } } },
    );
    const write = (text: string) => {
      fireEvent.click(screen.getByRole('button'));
      fireEvent.change(screen.getByRole('textbox'), { target: { value: text } });
    };
    let texts = draw('caption', 'Look up.');
    write('Look up tonight.');
    texts.unmount();
    await waitFor(() => expect(texts.of('a')).toMatchObject({ version: 5, texts: { caption: 'Look up tonight.' } }));
    expect([server.calls.length, texts.typed('a', 'caption')]).toEqual([1, null]);
    isRefused = true;
    texts = draw('caption', 'Look up.');
    write('Mine');
    texts.unmount();
    await waitFor(() => expect(server.calls).toHaveLength(2));
    expect(texts.typed('a', 'caption')).toBe('Mine');
  });

  it('is only read where its post is published, or it goes on', () => {
    draw('caption', 'Look up.', { isOut: true });
    expect(screen.queryByRole('button')).toBeNull();
    cleanup();
    draw('caption', 'Look up', { cut: ['caption'] });
    // What goes on is changed on its sheet, which the cell opens.
    expect(screen.getByRole('button', { name: /open to change/ }).dataset.post).toBe('a');
    expect(screen.getByText('Look up…')).toBeTruthy();
  });

  it('is not there where such a post has none', () => {
    draw('script', 'Said');
    expect(screen.queryByText('Said')).toBeNull();
  });
});
