-- Which parts of a piece a post was made from.
create table post_extracts (
  post_id uuid not null references posts (id),
  extract_id uuid not null references extracts (id) on delete cascade,
  primary key (post_id, extract_id)
);
create index post_extracts_by_extract on post_extracts (extract_id);
