import type { Extract } from '@/core/extracts/extracts';
import type { Clip } from '@/core/clips/clips';
import type { TakenApart } from '@/core/extracts/takeApart';
import { groupBy } from '@/core/group';
import { plainlyKept } from '@/core/reading/readSource';
import { timesOf, type Cue } from '@/core/reading/subtitles';
import { accept, type Result } from '@/core/refusal';
import { listExtracts, maybeSource, type KeptExtract } from '@/data/extracts/extracts';
import { listUsedStretches } from '@/data/fanOut/postExtracts';
import type { Watch } from '@/data/pool/pool';
import { takeApartInPool } from '@/data/pool/takeApart';
import type { Db } from '../useCase';
import { readingOfPiece } from './keptReading';

export type { KeptExtract } from '@/data/extracts/extracts';

/** An extract that somebody accepted or rejected, with its words. */
export type ShownExtract = Pick<KeptExtract, 'id' | 'kind' | 'state' | 'start' | 'end' | 'reason' | 'sign'> & {
  text: string;
  inMs?: number;
  outMs?: number;
  /** The live posts made from it. */
  usedIn?: { postId: string; channelId: string }[];
};

/** A piece's text to be read, what was made of it, and what Bimlo proposes beside. */
export interface PieceReading extends Omit<TakenApart, 'extracts' | 'clips'> {
  kept: ShownExtract[];
  proposed: Extract[];
  proposedClips: Clip[];
  isTimed: boolean;
}

/** Loads a piece's text to be read with what was made of it; what is proposed takes longer and is asked for by itself. */
export async function loadText(db: Db, pieceId: string): Promise<PieceReading> {
  const [source, kept, used] = await Promise.all([
    maybeSource(db, pieceId),
    listExtracts(db, pieceId),
    usesOf(db, pieceId),
  ]);
  const { cues, ...own } = source ?? plainlyKept('');
  const reading = await readingOfPiece(db, pieceId, { ...own, cues });
  return {
    ...reading,
    language: null,
    unknownLanguage: null,
    sentences: [],
    kept: kept.map((one) => ({ ...shown(one, reading.text, cues), usedIn: used.get(one.id) ?? [] })),
    proposed: [],
    proposedClips: [],
    isTimed: cues.length > 0,
  };
}

/** Loads the same with its sentences and what is proposed, worked out on a thread of its own. */
export async function loadReading(db: Db, pieceId: string, watch?: Watch): Promise<Result<PieceReading>> {
  const [source, extracts, used] = await Promise.all([
    maybeSource(db, pieceId),
    listExtracts(db, pieceId),
    usesOf(db, pieceId),
  ]);
  const own = source ?? plainlyKept('');
  const isClip = ({ kind }: KeptExtract) => kind === 'clip';
  const [taken, takenClips] = [extracts.filter((one) => !isClip(one)), extracts.filter(isClip)];
  const kept = { ...own, reading: await readingOfPiece(db, pieceId, own) };
  const apart = await takeApartInPool({ kept, taken, takenClips }, watch);
  if (!apart.ok) return apart;
  const { extracts: proposed, clips, ...reading } = apart.value;
  return accept({
    ...reading,
    kept: extracts.map((one) => ({ ...shown(one, reading.text, own.cues), usedIn: used.get(one.id) ?? [] })),
    proposed,
    proposedClips: clips,
    isTimed: own.cues.length > 0,
  });
}

/** The live posts made from each extract of a piece. */
async function usesOf(db: Db, pieceId: string): Promise<Map<string, { postId: string; channelId: string }[]>> {
  const uses = groupBy(await listUsedStretches(db, pieceId), ({ extractId }) => extractId);
  return new Map([...uses].map(([id, own]) => [id, own.map(({ postId, channelId }) => ({ postId, channelId }))]));
}

const shown = (
  { id, kind, state, start, end, reason, sign }: KeptExtract,
  text: string,
  cues: readonly Cue[],
): ShownExtract => ({
  id,
  kind,
  state,
  start,
  end,
  reason,
  ...(sign !== undefined && { sign }),
  text: text.slice(start, end),
  ...(cues.length > 0 && timesOf(cues, start, end)),
});

/** The accepted clips of a piece with its words and times, in the order of time. */
export async function loadClips(
  db: Db,
  pieceId: string,
): Promise<{ text: string; cues: readonly Cue[]; clips: (Clip & { id: string })[] }> {
  const [source, kept] = await Promise.all([maybeSource(db, pieceId), listExtracts(db, pieceId)]);
  const own = source ?? plainlyKept('');
  const { cues } = own;
  const { text } = await readingOfPiece(db, pieceId, own);
  const clips = kept
    .filter(({ kind, state }) => kind === 'clip' && state === 'accepted')
    .flatMap(({ id, start, end }) => {
      const times = timesOf(cues, start, end);
      return times ? [{ id, start, end, ...times, text: text.slice(start, end).replace(/\s+/g, ' ') }] : [];
    });
  return { text, cues, clips: clips.sort((one, other) => one.inMs - other.inMs) };
}
