-- Scripts whose words are not set apart by spaces, or whose vowels are marks that a parser of words stumbles over, are found by
-- their single letters and pairs of them. The same ranges stand in core's `search.ts`.
create function search_grams(content text) returns text[] language sql immutable strict parallel safe as $$
  select coalesce(array_agg(distinct substr(run, at, size)), '{}')
  from (
    select (regexp_matches(lower(normalize(content, NFC)),
      '[\u0590-\u1cff\u3005-\u3007\u3040-\ud7af\uf900-\ufdff\ufe70-\ufefe\U00020000-\U0003ffff]+', 'g'))[1] as run
  ) runs, generate_series(1, char_length(run)) at, generate_series(1, 2) size
  where at + size - 1 <= char_length(run)
$$;

-- (Functions are called by their schema: PostgreSQL builds indexes without a search path.)
-- What a text is found by: its words, however their accents were typed, and the pairs of letters of the others.
create function search_of(content text) returns tsvector language sql immutable strict parallel safe as $$
  select to_tsvector('simple', regexp_replace(normalize(content, NFC),
      '([\u0590-\u1cff\u3005-\u3007\u3040-\ud7af\uf900-\ufdff\ufe70-\ufefe\U00020000-\U0003ffff]+)', ' ', 'g'))
    || array_to_tsvector(public.search_grams(content))
$$;

drop index posts_by_words;
alter table posts drop column search;
alter table posts add column search tsvector generated always as (
  search_of(title || ' ' || headline || ' ' || left(caption, 20000))
) stored;
create index posts_by_words on posts using gin (search) where deleted_at is null;

drop index pieces_by_words;
alter table pieces add column search tsvector generated always as (search_of(title)) stored;
create index pieces_by_words on pieces using gin (search) where deleted_at is null
;

drop index library_files_by_words;
alter table library_files drop column search;
alter table library_files add column search tsvector generated always as (
  search_of(translate(file_name, '-_.', '   '))
) stored;
create index library_files_by_words on library_files using gin (search);
drop index media_by_words;
create index media_by_words on media using gin (search_of(alt))
