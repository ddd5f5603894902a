'use client';

import { useState, type FormEvent } from 'react';
import Button from 'react-bootstrap/Button';
import { ASSET_KINDS, ASSET_LABELS, type AssetKind } from '@/core/shelf/shelf';
import type { BrandAsset } from '@/usecases/brands/reading';
import { call, problemOf } from '@/ui/api';
import { fileSize } from '@/ui/format';
import { useSay } from '@/ui/messages';
import { useShell } from '@/ui/shell';
import { useCopy } from '@/ui/useCopy';
import { WordButton } from '@/ui/WordButton';
import { FieldRefusal } from '@/ui/FieldRefusal';

/** Colours, fonts, logos and portraits of a brand, to copy and to save. */
export function BrandSheet({
  assets,
  onChange,
}: {
  assets: readonly BrandAsset[];
  onChange: (assets: BrandAsset[]) => void;
}) {
  const { brand } = useShell();
  const say = useSay();
  const copy = useCopy();

  async function drop(asset: BrandAsset) {
    const answer = await call<BrandAsset[]>('DELETE', '/api/assets', { brandId: brand.id, id: asset.id });
    const problem = problemOf(answer);
    if (problem) return say({ text: problem, wrong: true });
    if (answer.kind === 'done') onChange(answer.value);
  }

  return (
    <div className="brand-sheet">
      {ASSET_KINDS.map((kind) => (
        <section key={kind} aria-label={ASSET_LABELS[kind]}>
          <h2>{ASSET_LABELS[kind]}</h2>
          <ul className={`assets is-${kind}`}>
            {assets
              .filter((asset) => asset.kind === kind)
              .map((asset) => (
                <li key={asset.id} data-asset={asset.id}>
                  {kind === 'colour' && <span className="swatch" style={{ background: asset.value }} />}
                  {(kind === 'logo' || kind === 'portrait') && (
                    <img src={`/api/media/${asset.sha256}?size=thumb`} alt={asset.name} />
                  )}
                  <b dir="auto">{asset.name}</b>
                  {asset.value !== '' && (
                    <WordButton className="figures" onClick={() => void copy(asset.value, asset.value)} title="Copy">
                      {asset.value}
                    </WordButton>
                  )}
                  {asset.sha256 && (
                    <a className="word" href={`/api/media/${asset.sha256}?save`}>
                      save {asset.bytes !== null && fileSize(asset.bytes)}
                    </a>
                  )}
                  <WordButton onClick={() => void drop(asset)}>Remove</WordButton>
                </li>
              ))}
          </ul>
          <AssetForm kind={kind} onKept={onChange} />
        </section>
      ))}
    </div>
  );
}

const VALUE_WORDS: Record<AssetKind, string | null> = {
  colour: '#2E7D50',
  font: 'Where it is used',
  logo: null,
  portrait: null,
};

/** The files that each may have. */
const ACCEPTS: Record<AssetKind, string | null> = {
  colour: null,
  font: '.woff2,.woff,.ttf,.otf',
  logo: 'image/*',
  portrait: 'image/*',
};

function AssetForm({ kind, onKept }: { kind: AssetKind; onKept: (assets: BrandAsset[]) => void }) {
  const { brand } = useShell();
  const [name, setName] = useState('');
  const [value, setValue] = useState('');
  const [file, setFile] = useState<File | null>(null);
  const [problem, setProblem] = useState<string | null>(null);
  const accepts = ACCEPTS[kind];

  async function keep(event: FormEvent) {
    event.preventDefault();
    const query = new URLSearchParams({ brand: brand.id, kind, name: name || (file?.name ?? ''), value });
    const answer = await call<BrandAsset[]>('POST', `/api/assets?${query}`, file ?? {});
    setProblem(problemOf(answer));
    if (answer.kind !== 'done') return;
    onKept(answer.value);
    setName('');
    setValue('');
    setFile(null);
  }

  return (
    <form className="asset-form" onSubmit={(event) => void keep(event)}>
      <input
        dir="auto"
        aria-label={`Name, ${ASSET_LABELS[kind]}`}
        placeholder="Name"
        value={name}
        onChange={(event) => setName(event.target.value)}
      />
      {VALUE_WORDS[kind] && (
        <input
          dir="auto"
          aria-label={`Value, ${ASSET_LABELS[kind]}`}
          placeholder={VALUE_WORDS[kind]}
          value={value}
          onChange={(event) => setValue(event.target.value)}
        />
      )}
      {accepts && (
        <label className="word">
          {file ? file.name : kind === 'font' ? 'its file, for pictures of words' : 'choose a file'}
          <input
            type="file"
            className="visually-hidden"
            accept={accepts}
            onChange={(event) => setFile(event.target.files?.[0] ?? null)}
          />
        </label>
      )}
      <Button type="submit" size="sm" variant="outline-primary">
        Add
      </Button>
      <FieldRefusal>{problem}</FieldRefusal>
    </form>
  );
}
