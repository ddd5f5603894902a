'use client';

import { useState } from 'react';
import Button from 'react-bootstrap/Button';
import { carryText, type CarryHow } from '@/core/captions/carry';
import type { Name } from '@/core/shelf/shelf';
import { CallSign } from '@/ui/CallSign';
import { useSay } from '@/ui/messages';
import { useShell } from '@/ui/shell';
import type { OpenSibling } from './openSibling';

/** Carries a post's text to some of its siblings: fitted to what each network takes, or as it is. */
export function Carry({
  from,
  network,
  list,
  names,
  onDone,
}: {
  from: OpenSibling;
  network: string;
  list: () => readonly OpenSibling[];
  names: readonly Name[];
  onDone: () => void;
}) {
  const { channels } = useShell();
  const say = useSay();
  const others = list().filter(({ sheet }) => sheet.id !== from.sheet.id);
  const [chosen, setChosen] = useState<ReadonlySet<string>>(
    new Set(others.filter(({ editor }) => editor.texts?.caption.trim() === '').map(({ sheet }) => sheet.id)),
  );
  const [how, setHow] = useState<CarryHow>('fitted');

  function toggle(id: string) {
    const next = new Set(chosen);
    if (!next.delete(id)) next.add(id);
    setChosen(next);
  }

  function carry() {
    const texts = from.editor.texts!;
    const shortened: string[] = [];
    for (const { sheet, editor } of list()) {
      const channel = channels.find(({ id }) => id === sheet.channelId);
      if (!chosen.has(sheet.id) || !channel || !editor.texts) continue;
      const carried = carryText({ ...texts, network }, editor.texts, channel.sheet, names, how);
      editor.type('caption', carried.caption);
      if (channel.sheet.hashtagLimit !== 0) editor.type('hashtags', carried.hashtags);
      if (carried.shortened) shortened.push(channel.callSign);
    }
    onDone();
    say({
      text: `Copied to ${chosen.size === 1 ? 'one post' : `${chosen.size} posts`}.${
        shortened.length > 0 ? ` Shortened to fit: ${shortened.join(', ')}.` : ''
      } Ctrl+Z in a text undoes it there.`,
    });
  }

  return (
    <fieldset className="carry">
      <legend className="visually-hidden">Copy this text to</legend>
      {others.map(({ sheet }) => {
        const channel = channels.find(({ id }) => id === sheet.channelId);
        return (
          channel && (
            <label key={sheet.id}>
              <input type="checkbox" checked={chosen.has(sheet.id)} onChange={() => toggle(sheet.id)} />
              <CallSign sign={channel.callSign} color={channel.color} /> {sheet.title}
            </label>
          )
        );
      })}
      <div>
        <label>
          <input type="radio" name="how" checked={how === 'fitted'} onChange={() => setHow('fitted')} /> cut to fit
        </label>{' '}
        <label>
          <input type="radio" name="how" checked={how === 'asItIs'} onChange={() => setHow('asItIs')} /> as it is,
          marked where it is too long
        </label>
      </div>
      <Button size="sm" disabled={chosen.size === 0} onClick={carry}>
        Copy to {chosen.size === 1 ? 'one post' : `${chosen.size} posts`}
      </Button>
    </fieldset>
  );
}
