import { isVideo } from '../media/video';
import { blocksOf, type Block, type PostContent } from '../posts/readiness';
import type { RuleSheet } from '../rulesheets/types';
import { hasOwnWords } from '../posts/oneTitle';
import type { Stage } from '../stages/stages';
import type { Work } from './step';

/** A step as far as its work can be seen on its post. */
interface Seen {
  work: Work;
  lead: number;
  doneOn: string | null;
}

const isOfMedia = ({ field, code }: Block): boolean =>
  field === 'pictures' || field === 'format' || code === 'partNoPicture';

/**
 * The sorts of work that a post shows as done: words that its network takes and somebody has read, a picture or a video that
 * it takes, or that it is scheduled.
 *
 * @param unread sentences of its draft that nobody has read
 */
export function worksSeen(
  post: PostContent & { title: string; stage: Stage },
  sheet: RuleSheet,
  unread: number,
): ReadonlySet<Work> {
  const blocks = blocksOf(post, sheet);
  const mediaFit = !blocks.some(isOfMedia);
  const hasVideo = post.pictures.some(isVideo);
  const seen = new Set<Work>();
  if (hasOwnWords(post) && unread === 0 && blocks.every(isOfMedia)) seen.add('words');
  if (mediaFit && post.pictures.some((picture) => !isVideo(picture))) seen.add('picture');
  if (hasVideo) seen.add('recording');
  if (hasVideo && mediaFit) seen.add('editing');
  if (post.stage === 'scheduled' || post.stage === 'published') seen.add('sending');
  return seen;
}

/** The steps whose work is seen to be done, of each sort the first that is open; what follows publishing is never seen before. */
export function offeredAsDone<S extends Seen>(steps: readonly S[], seen: ReadonlySet<Work>): S[] {
  const open = steps.filter(({ doneOn, lead }) => doneOn === null && lead >= 0);
  return [...seen].flatMap((work) => open.find((step) => step.work === work) ?? []);
}
