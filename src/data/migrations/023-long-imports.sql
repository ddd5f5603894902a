-- Files of posts that are too long to be brought in while their sender waits: a job brings them in slice by slice.
create table imports (
  id uuid primary key,
  brand_id uuid not null references brands (id),
  actor_id uuid not null references people (id),
  created_at timestamptz not null,
  -- The file as it was decided on, as JSON text; emptied when it has ended.
  file text not null,
  file_name text not null,
  row_count integer not null,
  state text not null default 'waiting' check (state in ('waiting', 'checking', 'writing', 'done', 'refused', 'stopped')),
  -- How many rows the present state has behind it.
  done_count integer not null default 0,
  -- The line of the last row written.
  done_line integer not null default 0,
  stop_asked boolean not null default false,
  -- What came of the rows that are in.
  outcome jsonb not null,
  -- Why nothing (more) came in.
  refusal jsonb,
  ended_at timestamptz
);
create index imports_by_brand on imports (brand_id, created_at desc);
