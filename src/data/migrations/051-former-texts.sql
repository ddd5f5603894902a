-- What a piece said when posts were made from it, kept once it says something else, so that they can be corrected after it. A post
-- points to the text it was made of; null where that is the piece's text as it stands, or where it was corrected since.
create table former_texts (
  id uuid primary key default gen_random_uuid(),
  piece_id uuid not null references pieces (id) on delete cascade,
  title text not null,
  link text not null,
  source_text text not null,
  cues jsonb not null,
  how_read jsonb,
  -- The version of the piece that it was last compared with.
  compared_with integer
);
create index former_texts_of_piece on former_texts (piece_id);
alter table posts add column made_of uuid references former_texts (id);
create index posts_made_of on posts (piece_id) where made_of is not null;

create function keep_former_text() returns trigger language plpgsql as $$
declare
  former uuid;
begin
  -- A text that is only begun was nothing to make a post from.
  if (old.title, old.link, old.source_text) is distinct from (new.title, new.link, '')
    and exists (select 1 from posts where piece_id = new.id and made_of is null) then
    select id into former from former_texts
      where piece_id = new.id and (title, link, source_text) = (old.title, old.link, old.source_text);
    if former is null then
      insert into former_texts (piece_id, title, link, source_text, cues, how_read)
        values (old.id, old.title, old.link, old.source_text, old.cues, old.how_read)
        returning id into former;
    end if;
    update posts set made_of = former where piece_id = new.id and made_of is null;
  end if;
  -- What is said again differs from nothing.
  update posts set made_of = null from former_texts f
    where made_of = f.id and f.piece_id = new.id
      and (f.title, f.link, f.source_text) = (new.title, new.link, new.source_text);
  return null;
end
$$;
create trigger piece_says_other after update of title, link, source_text on pieces for each row
  when ((old.title, old.link, old.source_text) is distinct from (new.title, new.link, new.source_text))
  execute function keep_former_text();
