import { door } from '@/app/server/door';
import { askedFor, done, isId, nothingThere, refusal } from '@/app/server/request';
import { clipAsSrt, clipAsVtt, clipsAsCsv, clipsAsEdl, linesOf } from '@/core/clips/clipFiles';
import { loadClips } from '@/usecases/extracts/reading';
import { maybePiece } from '@/usecases/pieces/reading';
import { mayRead } from '@/usecases/rights/mustMay';

const TYPES = { csv: 'text/csv', edl: 'text/plain', srt: 'application/x-subrip', vtt: 'text/vtt' } as const;

/**
 * The accepted clips of a piece: all as a cut list (`?as=csv` or `?as=edl`), or one (`?clip=`) as its subtitles (`?as=srt` or
 * `?as=vtt`), or as what is said in it and when (`?as=said`), to be set in its pictures.
 */
export const GET = door<{ id: string }>('look', async (request, { params }, { work }) => {
  const { id } = await params;
  const piece = isId(id) ? await maybePiece(work.db, id) : undefined;
  if (!piece || piece.deletedAt) return nothingThere('piece');
  const allowed = await mayRead(work, 'look', piece.brandId);
  if (!allowed.ok) return refusal(allowed.refusal);
  const as = askedFor(request, 'as');
  if (as !== 'said' && !Object.hasOwn(TYPES, as)) return nothingThere('file');
  const { text, cues, clips } = await loadClips(work.db, id);
  const place = clips.findIndex((one) => one.id === askedFor(request, 'clip'));
  const clip = clips[place];
  if (as !== 'csv' && as !== 'edl' && !clip) return nothingThere('clip');
  if (as === 'said') return done(linesOf(text, cues, clip!));
  const content =
    as === 'csv'
      ? clipsAsCsv(clips)
      : as === 'edl'
        ? clipsAsEdl(piece.title, clips)
        : (as === 'srt' ? clipAsSrt : clipAsVtt)(text, cues, clip!);
  const name = clip ? `clip-${place + 1}` : 'clips';
  return new Response(content, {
    headers: {
      'content-type': `${TYPES[as as keyof typeof TYPES]}; charset=utf-8`,
      'content-disposition': `attachment; filename="${name}.${as}"`,
      'cache-control': 'no-store',
    },
  });
});
