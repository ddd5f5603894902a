'use client';

import { useState, type FormEvent } from 'react';
import Button from 'react-bootstrap/Button';
import type { Name } from '@/core/shelf/shelf';
import { call, problemOf } from '@/ui/api';
import { useShell } from '@/ui/shell';
import { ShelfList } from './ShelfList';
import { FieldRefusal } from '@/ui/FieldRefusal';

/** People and places to name, and what they are called on each of the brand's networks. */
export function NameList({ names, onChange }: { names: readonly Name[]; onChange: (names: Name[]) => void }) {
  const { channels } = useShell();
  const networks = [...new Map(channels.map(({ sheet }) => [sheet.slug, sheet.name]))];
  const [isAdding, setAdding] = useState(false);

  return (
    <>
      <p className="soft">
        Somebody listed here gets the right handle on each network, also when a text is copied to another post of its
        piece.
      </p>
      {isAdding ? (
        <NameForm
          name={null}
          networks={networks}
          onKept={(kept) => {
            onChange(kept);
            setAdding(false);
          }}
        />
      ) : (
        <Button size="sm" variant="outline-primary" onClick={() => setAdding(true)}>
          Add somebody or some place
        </Button>
      )}
      <ShelfList
        things={names}
        sort="name"
        path="/api/names"
        took={({ name }) => `Removed ${name} from the list.`}
        form={(name, onKept) => <NameForm name={name} networks={networks} onKept={onKept} />}
        face={(name) => (
          <>
            <b>
              {name.name} {name.kind === 'place' && <span className="soft">place</span>}
            </b>
            <span className="shelf-text">
              {networks
                .filter(([slug]) => name.handles[slug])
                .map(([slug, network]) => (
                  <span key={slug} className="shelf-handle">
                    {name.handles[slug]} <span className="soft">{network}</span>
                  </span>
                ))}
            </span>
          </>
        )}
        onChange={onChange}
      />
    </>
  );
}

function NameForm({
  name,
  networks,
  onKept,
}: {
  name: Name | null;
  networks: readonly (readonly [string, string])[];
  onKept: (names: Name[]) => void;
}) {
  const { brand } = useShell();
  const [typed, setTyped] = useState(name?.name ?? '');
  const [kind, setKind] = useState<Name['kind']>(name?.kind ?? 'person');
  const [handles, setHandles] = useState<Record<string, string>>(name?.handles ?? {});
  const [problem, setProblem] = useState<string | null>(null);

  async function keep(event: FormEvent) {
    event.preventDefault();
    const answer = await call<Name[]>('POST', '/api/names', {
      brandId: brand.id,
      known: name && { id: name.id, version: name.version },
      kind,
      name: typed,
      handles,
    });
    setProblem(problemOf(answer));
    if (answer.kind === 'done') onKept(answer.value);
  }

  return (
    <form className="shelf-form" onSubmit={(event) => void keep(event)}>
      <input
        dir="auto"
        aria-label="Name"
        placeholder="Name"
        autoFocus
        value={typed}
        onChange={(event) => setTyped(event.target.value)}
      />
      <select
        aria-label="Person or place"
        value={kind}
        onChange={(event) => setKind(event.target.value as Name['kind'])}
      >
        <option value="person">a person</option>
        <option value="place">a place</option>
      </select>
      <div className="handle-fields">
        {networks.map(([slug, network]) => (
          <label key={slug}>
            {network}
            <input
              dir="auto"
              placeholder="@"
              value={handles[slug] ?? ''}
              onChange={(event) => setHandles({ ...handles, [slug]: event.target.value })}
            />
          </label>
        ))}
      </div>
      <Button type="submit" size="sm">
        {name ? 'Keep the change' : 'Add the name'}
      </Button>
      <FieldRefusal>{problem}</FieldRefusal>
    </form>
  );
}
