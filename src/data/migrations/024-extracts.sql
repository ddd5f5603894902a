-- What a piece says with the moments at which it is said, and the parts of it that are worth a post.
alter table pieces
  -- [[start, end, inMs, outMs], …] by the offsets of the text as it is read; empty for a text without times.
  add column cues jsonb not null default '[]',
  add column is_word_timed boolean not null default false;

create table extracts (
  id uuid primary key,
  brand_id uuid not null references brands (id),
  piece_id uuid not null,
  kind text not null,
  -- A person's verdict: what Bimlo proposes is worked out anew each time, and not kept.
  state text not null,
  -- UTF-16 offsets of the text as it is read.
  start_offset integer not null,
  end_offset integer not null,
  reason text not null default '',
  created_at timestamptz not null,
  created_by uuid not null references people (id),
  constraint extracts_of_brand unique (brand_id, id),
  constraint extracts_piece_of_brand foreign key (brand_id, piece_id) references pieces (brand_id, id),
  constraint extracts_kind_known check (kind in ('quote', 'point', 'number', 'question', 'listStep', 'clip')),
  constraint extracts_state_known check (state in ('accepted', 'rejected')),
  constraint extracts_in_order check (start_offset >= 0 and end_offset > start_offset)
);
create index extracts_by_piece on extracts (piece_id, start_offset);
