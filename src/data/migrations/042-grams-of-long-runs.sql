-- The same single letters and pairs as before, in time that grows with the text: `substr` counts from the front for each letter, which
-- took half a minute for 20,000 of them.
create or replace function search_grams(content text) returns text[] language sql immutable strict parallel safe as $$
  select coalesce(array_agg(distinct gram), '{}')
  from (
    select letter, letter || lead(letter) over (partition by run_number order by place) as pair
    from regexp_matches(lower(normalize(content, NFC)),
        '[\u0590-\u1cff\u3005-\u3007\u3040-\ud7af\uf900-\ufdff\ufe70-\ufefe\U00020000-\U0003ffff]+', 'g')
        with ordinality as runs (found, run_number),
      unnest(string_to_array(found[1], null)) with ordinality as letters (letter, place)
  ) grams, unnest(array[letter, pair]) gram
  where gram is not null
$$
