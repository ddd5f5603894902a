-- Writes that were answered, by the key their sender gave them: the same write again is answered as the first was.
create table answered_writes (
  actor_id uuid not null,
  key text not null,
  -- Which of the writes of one request it was, from 0.
  part integer not null,
  value jsonb,
  at timestamptz not null,
  primary key (actor_id, key, part)
);
create index answered_writes_by_age on answered_writes (at)
