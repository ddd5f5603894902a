-- A change that can be undone says what it left each field at, may be one of steps, and knows the channels a piece was
-- suggested for. Changes written down before do not, so they cannot be undone any more.
delete from calendar_changes;
alter table calendar_changes
  add column steps jsonb not null default '[]'::jsonb,
  add column suggested jsonb;
