/** Posts as pages read them. Plain queries, handed on as they are. */

export { listPostsOfPiece } from '@/data/posts/postLines';
export { maybePost } from '@/data/posts/posts';
export { type WordsVersion, listWordsVersions } from '@/data/posts/wordsVersions';
