'use client';

import { parseAsBoolean, useQueryState } from 'nuqs';
import dynamic from 'next/dynamic';
import Link from 'next/link';
import { useRouter } from 'next/navigation';
import { useState } from 'react';
import Button from 'react-bootstrap/Button';
import Form from 'react-bootstrap/Form';
import Table from 'react-bootstrap/Table';
import {
  cellWords,
  COVERAGE_BY,
  COVERAGE_ORDERS,
  ORDER_LABELS,
  type Cell,
  type CoverageBy,
  type CoverageOrder,
} from '@/core/coverage/coverage';
import { KIND_LABELS } from '@/core/pieces/kinds';
import { FORMAT_LABELS, FORMATS, formatRule, type Format } from '@/core/rulesheets/types';
import { counted } from '@/core/words';
import type { Coverage, CoverageRow } from '@/usecases/coverage/loadCoverage';
import { CallSign } from '@/ui/CallSign';
import { Progress, progressWords } from '@/ui/Progress';
import { Only, useMay, useShell } from '@/ui/shell';
import { TermHint } from '@/ui/TermHint';
import { PiecesNav } from './PiecesNav';

const NewPieceDialog = dynamic(() => import('./NewPieceDialog').then((module) => module.NewPieceDialog), {
  ssr: false,
});
const FanOutDialog = dynamic(() => import('./[piece]/fanOut/FanOutDialog').then((module) => module.FanOutDialog), {
  ssr: false,
});

/** A column of the coverage: a channel or a format, and how one post is drafted for it. */
interface Column {
  key: string;
  name: string;
  head: React.ReactNode;
  only: { channelId: string; format: Format };
}

/** Pieces down, channels or formats across: where each was used, and where not yet. An empty cell drafts a post. */
export function CoverageScreen({
  coverage: { rows, next, count },
  order,
  by,
  isFirst,
}: {
  coverage: Coverage;
  order: CoverageOrder;
  by: CoverageBy;
  isFirst: boolean;
}) {
  const { brand } = useShell();
  const router = useRouter();
  const columns = useColumns(by);
  const may = useMay();
  const [isNew, setNew] = useQueryState('new', parseAsBoolean.withDefault(false));
  const [drafting, setDrafting] = useState<{ row: CoverageRow; column: Column } | null>(null);
  const addressOf = (asked: Partial<Record<'order' | 'by' | 'after', string>>) =>
    `/${brand.slug}/pieces?${new URLSearchParams({ order, by, ...asked })}`;

  return (
    <>
      <header className="place-head">
        <h1>
          <TermHint term="piece">Pieces</TermHint>
        </h1>
        <PiecesNav />
        <span className="soft">{counted(count, 'piece')}</span>
        <Only deed="catchIdeas">
          <Button className="push" onClick={() => void setNew(true)}>
            New piece…
          </Button>
        </Only>
      </header>
      <div className="place-body">
        {count === 0 ? (
          <div className="empty">
            <h2>No pieces yet</h2>
            <p>A piece is what you have to say: bring in a talk or an article, and make posts of it.</p>
            <Button onClick={() => void setNew(true)}>Begin a piece</Button>
          </div>
        ) : (
          <>
            <div className="coverage-bar">
              <label>
                Order{' '}
                <Form.Select
                  size="sm"
                  value={order}
                  onChange={(event) => router.push(addressOf({ order: event.target.value }))}
                >
                  {COVERAGE_ORDERS.map((one) => (
                    <option key={one} value={one}>
                      {ORDER_LABELS[one]}
                    </option>
                  ))}
                </Form.Select>
              </label>
              <span role="group" aria-label="Columns">
                {COVERAGE_BY.map((one) => (
                  <Link
                    key={one}
                    className="word"
                    href={addressOf({ by: one })}
                    aria-current={one === by ? 'true' : undefined}
                    prefetch={false}
                  >
                    by {one}
                  </Link>
                ))}
              </span>
              <span className="soft small-text coverage-key">
                <Mark cell={{ published: 2, planned: 0 }} /> published <Mark cell={{ published: 0, planned: 1 }} />{' '}
                planned
              </span>
            </div>
            <div className="coverage-scroll">
              <Table bsPrefix="timetable" className="coverage">
                <thead>
                  <tr>
                    <th scope="col">Piece</th>
                    {columns.map(({ key, head }) => (
                      <th key={key} scope="col" className="coverage-column">
                        {head}
                      </th>
                    ))}
                    <th scope="col" className="coverage-sum">
                      Engagement
                    </th>
                    <th scope="col">Work on posts to come</th>
                  </tr>
                </thead>
                <tbody>
                  {rows.map((row) => (
                    <tr key={row.id} data-piece={row.id}>
                      <th scope="row">
                        <Link href={`/${brand.slug}/pieces/${row.id}`} prefetch={false} dir="auto">
                          {row.title}
                        </Link>{' '}
                        {row.kind !== 'message' && <span className="soft small-text">{KIND_LABELS[row.kind]}</span>}
                      </th>
                      {columns.map((column) => (
                        <td key={column.key} className="coverage-column">
                          <CellOf row={row} column={column} onDraft={() => setDrafting({ row, column })} />
                        </td>
                      ))}
                      <td className="figures coverage-sum">
                        {row.engagement > 0 ? row.engagement.toLocaleString('en-GB') : <span className="soft">–</span>}
                      </td>
                      <td className="piece-progress">
                        <Progress progress={row.progress} />
                        <span className="soft small-text">{progressWords(row.progress)}</span>
                      </td>
                    </tr>
                  ))}
                </tbody>
              </Table>
            </div>
            <nav className="coverage-pages" aria-label="Pages">
              {!isFirst && (
                <Link className="word" href={addressOf({})} prefetch={false}>
                  From the start
                </Link>
              )}
              {next !== null && (
                <Link className="word" href={addressOf({ after: next })} prefetch={false}>
                  More pieces
                </Link>
              )}
            </nav>
          </>
        )}
      </div>
      {isNew && may('catchIdeas') && <NewPieceDialog onClose={() => void setNew(null)} />}
      {drafting && (
        <FanOutDialog
          piece={drafting.row}
          start={{ fanOut: '', only: drafting.column.only }}
          onMade={() => router.refresh()}
          onClose={() => setDrafting(null)}
        />
      )}
    </>
  );
}

/** The columns: the brand's channels, or the formats that its channels take. */
function useColumns(by: CoverageBy): Column[] {
  const { channels } = useShell();
  if (by === 'channels')
    return channels.map(({ id, callSign, color, name, sheet }) => ({
      key: id,
      name,
      head: <CallSign sign={callSign} color={color} name={name} />,
      only: { channelId: id, format: sheet.formats[0]!.format },
    }));
  return FORMATS.flatMap((format) => {
    const channel = channels.find(({ sheet }) => formatRule(sheet, format));
    if (!channel) return [];
    const name = FORMAT_LABELS[format];
    return [{ key: format, name, head: name, only: { channelId: channel.id, format } }];
  });
}

function CellOf({ row, column, onDraft }: { row: CoverageRow; column: Column; onDraft: () => void }) {
  const { brand } = useShell();
  const may = useMay();
  const cell = row.cells[column.key];
  if (cell)
    return (
      <Link
        className="coverage-used"
        href={`/${brand.slug}/pieces/${row.id}#posts`}
        title={`${column.name}: ${cellWords(cell)}`}
        prefetch={false}
      >
        <Mark cell={cell} />
        <span className="visually-hidden">{cellWords(cell)}</span>
      </Link>
    );
  if (!may('changePosts')) return <span className="visually-hidden">not used</span>;
  return (
    <button
      type="button"
      className="coverage-empty"
      title={`Draft for ${column.name}`}
      aria-label={`Draft “${row.title}” for ${column.name}`}
      onClick={onDraft}
    />
  );
}

/** How often a piece was used in a place: solid for published, outlined for planned. */
function Mark({ cell: { published, planned } }: { cell: Cell }) {
  return (
    <span className="coverage-mark figures" aria-hidden>
      {published > 0 && <b>{published}</b>}
      {planned > 0 && <i>{planned}</i>}
    </span>
  );
}
