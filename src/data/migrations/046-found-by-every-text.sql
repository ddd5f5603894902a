-- Posts and pieces are found by every text of them, as far as an index can hold: its words may be 1 MB at most, and a text of nothing
-- but pairs of letters makes 16 bytes of each letter.

-- The texts of the parts of a post.
create function search_parts(parts jsonb) returns text language sql immutable strict parallel safe as $$
  select coalesce(string_agg(text #>> '{}', ' '), '') from jsonb_path_query(parts, '$[*].text') text
$$;

-- An address is found by its words.
create function search_address(address text) returns text language sql immutable strict parallel safe as $$
  select translate(address, '/.:?&=#-_', '         ')
$$;

drop index posts_by_words;
alter table posts drop column search;
alter table posts add column search tsvector generated always as (search_of(left(
  title || ' ' || headline || ' ' || preheader || ' ' || search_address(link) || ' ' || hashtags || ' ' || keywords || ' '
  || left(caption, 20000) || ' ' || left(first_comment, 5000) || ' ' || left(search_parts(parts), 20000) || ' '
  || left(script, 20000) || ' ' || left(cover_ideas, 5000) || ' ' || left(agenda, 5000),
60000))) stored;
create index posts_by_words on posts using gin (search) where deleted_at is null;

drop index pieces_by_words;
alter table pieces drop column search;
alter table pieces add column search tsvector generated always as (search_of(
  title || ' ' || search_address(link) || ' ' || left(note, 20000) || ' ' || left(source_text, 40000)
)) stored;
create index pieces_by_words on pieces using gin (search) where deleted_at is null;
