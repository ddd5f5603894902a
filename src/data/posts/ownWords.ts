/** Core’s `hasOwnWords` of the rows of `posts` under that name, as SQL. */
export const ownWords = (posts: string): string =>
  `(${posts}.caption ~ '\\S' or ${posts}.headline ~ '\\S'
    and (trim(${posts}.headline) <> ${posts}.title or ${posts}.stage in ('ready', 'scheduled', 'published')))`;
