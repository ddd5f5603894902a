'use client';

import { useFromServer } from '@/ui/useFromServer';
import { useState, type FormEvent } from 'react';
import { useRouter } from 'next/navigation';
import Button from 'react-bootstrap/Button';
import { call, problemOf } from '@/ui/api';
import { useSay } from '@/ui/messages';
import { useShell } from '@/ui/shell';
import { Problem } from '../Problem';
import { useSetting } from '../useSetting';
import { DateField } from '@/ui/DateField';
import { useUnsaved } from '@/ui/LeaveGuard';
import { WordButton } from '@/ui/WordButton';

interface Theme {
  id: string | null;
  name: string;
  color: string;
  from: string | null;
  to: string | null;
}

const FRESH: Theme = { id: null, name: '', color: '#3B6E7A', from: null, to: null };

/** A list of pillars or campaigns, each changed in its row. */
export function ThemeSettings({
  kind,
  title,
  about,
  themes,
}: {
  kind: 'pillars' | 'campaigns';
  title: string;
  about: string;
  themes: readonly (Theme & { version: number })[];
}) {
  return (
    <section>
      <h2 dir="auto">{title}</h2>
      <p className="soft">{about}</p>
      {[...themes, { ...FRESH, version: 0 }].map(({ version, ...theme }) => (
        <ThemeRow key={theme.id ?? `new ${themes.length}`} kind={kind} theme={theme} version={version} />
      ))}
    </section>
  );
}

function ThemeRow({ kind, theme, version }: { kind: 'pillars' | 'campaigns'; theme: Theme; version: number }) {
  const { brand } = useShell();
  const router = useRouter();
  const say = useSay();
  const [fields, setFields] = useFromServer(theme);
  const setting = useSetting(version);
  useUnsaved(JSON.stringify(fields) !== JSON.stringify(theme));
  const [problem, setProblem] = useState<string | null>(null);
  const isNew = theme.id === null;
  const isChanged = JSON.stringify(fields) !== JSON.stringify(theme);
  const one = kind === 'pillars' ? 'pillar' : 'campaign';
  const label = (what: string) => `${what} of ${isNew ? `the new ${one}` : theme.name}`;

  async function save(event: FormEvent) {
    event.preventDefault();
    const { from, to, ...rest } = fields;
    await setting.save('POST', '/api/settings/themes', {
      kind,
      brandId: brand.id,
      ...rest,
      ...(kind === 'campaigns' ? { from, to } : {}),
    });
  }

  async function archive() {
    const answer = await call('DELETE', '/api/settings/themes', { kind, brandId: brand.id, id: theme.id });
    setProblem(problemOf(answer));
    if (answer.kind !== 'done') return;
    say({ text: `Archived “${theme.name}”. Posts keep it.` });
    router.refresh();
  }

  return (
    <form className="theme-row" onSubmit={(event) => void save(event)}>
      <input
        type="color"
        aria-label={label('Colour')}
        value={fields.color}
        onChange={(event) => setFields({ ...fields, color: event.target.value })}
      />
      <input
        dir="auto"
        aria-label={label('Name')}
        placeholder={`New ${one}`}
        value={fields.name}
        onChange={(event) => setFields({ ...fields, name: event.target.value })}
      />
      {kind === 'campaigns' && (
        <>
          <DateField
            label={label('First day')}
            value={fields.from ?? ''}
            onChange={(date) => setFields({ ...fields, from: date || null })}
          />
          <DateField
            label={label('Last day')}
            value={fields.to ?? ''}
            onChange={(date) => setFields({ ...fields, to: date || null })}
          />
        </>
      )}
      {isChanged && (
        <Button type="submit" size="sm">
          {isNew ? 'Make it' : 'Save'}
        </Button>
      )}
      {!isNew && (
        <WordButton className="soft" onClick={() => void archive()} aria-label={`Archive ${theme.name}`}>
          Archive
        </WordButton>
      )}
      <Problem of={setting} onTheirs={() => setFields(theme)} />
      {problem && (
        <span className="field-refusal" role="alert">
          {problem}
        </span>
      )}
    </form>
  );
}
