-- Texts that only some formats have. The first three are sent; script, cover ideas and agenda are for those who make it.
-- `parts` is core's Part[]: slides, frames, or the parts of a thread after its first.
alter table posts
  add column preheader text not null default '',
  add column keywords text not null default '',
  add column first_comment text not null default '',
  add column script text not null default '',
  add column cover_ideas text not null default '',
  add column agenda text not null default '',
  add column parts jsonb not null default '[]';

-- What a post's words were, one row for each stretch of writing by one person; `words` is core's WrittenWords.
create table post_versions (
  id uuid primary key,
  post_id uuid not null references posts (id),
  person_id uuid not null references people (id),
  at timestamptz not null,
  words jsonb not null,
  -- Which came first, since two may be of one instant.
  number bigint generated always as identity
);
create index post_versions_by_post on post_versions (post_id, number desc);

-- How fast scripts of a brand are spoken.
alter table brands add column words_per_minute smallint not null default 150
  constraint brands_words_per_minute_known check (words_per_minute between 60 and 300);
