-- An extract keeps its short name for good: the letter of its kind and a number that no other of its piece has. Whoever adds one may
-- say which it has on screen; where that is taken, or none is said, it gets the next.
alter table extracts add column sign text not null default '';

create function letter_of_extract(kind text) returns text language sql immutable as $$
  select case kind when 'quote' then 'Q' when 'point' then 'P' when 'number' then 'N' when 'question' then '?'
    when 'listStep' then 'S' else 'C' end
$$;

update extracts e set sign = letter_of_extract(e.kind) || n.number
from (
  select id, row_number() over (partition by piece_id, letter_of_extract(kind) order by start_offset, end_offset, id) as number
  from extracts
) n where n.id = e.id;

create function name_extract() returns trigger language plpgsql as $$
declare
  letter text := letter_of_extract(new.kind);
begin
  if new.sign !~ '^.[1-9][0-9]{0,3}$' or left(new.sign, 1) <> letter
    or exists (select 1 from extracts where piece_id = new.piece_id and sign = new.sign) then
    new.sign := letter || (
      select coalesce(max(substr(sign, 2)::integer), 0) + 1 from extracts
      where piece_id = new.piece_id and left(sign, 1) = letter
    );
  end if;
  return new;
end
$$;
create trigger extract_named before insert on extracts for each row execute function name_extract();
