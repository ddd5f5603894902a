-- What a person did, by what it touched: a new kind of thing needs no column here. What was undone can be done again.
alter table calendar_changes rename to changes;
alter table changes rename constraint calendar_changes_pkey to changes_pkey;
alter table changes rename constraint calendar_changes_actor_id_fkey to changes_actor_id_fkey;
alter table changes rename constraint calendar_changes_brand_id_fkey to changes_brand_id_fkey;

update changes set items = (
  select coalesce(jsonb_agg(jsonb_build_object('subject', 'post', 'id', item->>'postId') || (item - 'postId')), '[]') from jsonb_array_elements(items) item
) || (
  select coalesce(jsonb_agg(jsonb_build_object('subject', 'step', 'id', coalesce(item->'before'->>'id', item->'after'->>'id')) || item), '[]')
  from jsonb_array_elements(steps) item
) || case when jsonb_typeof(suggested) = 'object' then jsonb_build_array(jsonb_build_object(
  'subject', 'suggestions', 'id', suggested->>'pieceId', 'before', suggested->'channelIds', 'after', '[]'::jsonb
)) else '[]' end;

alter table changes drop column steps, drop column suggested;
-- Why it cannot be undone; null where it can.
alter table changes add column final text
