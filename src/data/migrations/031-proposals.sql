-- Posts that a standing fan-out drew up by itself: rows of their own, no posts, until somebody keeps them.
create table proposals (
  id uuid primary key,
  brand_id uuid not null references brands (id),
  piece_id uuid not null references pieces (id),
  owner_id uuid not null references people (id),
  channel_id uuid not null references channels (id),
  format text not null,
  fan_out text not null,
  -- Its place among those drawn up with it.
  place integer not null,
  offset_days integer not null,
  gap_days integer not null,
  -- The parts of the piece it is made from; empty for the whole.
  made_from jsonb not null,
  draft jsonb not null,
  -- The picture that is made of words when it is kept; null for none.
  card jsonb,
  made_at timestamptz not null,
  state text not null default 'waiting' constraint proposals_state_known check (state in ('waiting', 'kept', 'thrownAway')),
  decided_at timestamptz,
  post_id uuid references posts (id)
);
create index proposals_waiting on proposals (owner_id, brand_id, made_at desc) where state = 'waiting';
create index proposals_by_piece on proposals (piece_id);

-- Pieces for which a fan-out was drawn up by itself, or whose text was there before it stood.
create table drawn_up (
  piece_id uuid not null references pieces (id),
  fan_out text not null,
  at timestamptz not null,
  primary key (piece_id, fan_out)
);

-- When the text was last typed at; null for one that was brought in whole.
alter table pieces add column typed_at timestamptz;
