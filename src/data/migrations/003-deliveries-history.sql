-- How a scheduled post gets out. `parcel` is the copy made when it was scheduled; only that is sent.
create table deliveries (
  id uuid primary key,
  brand_id uuid not null,
  post_id uuid not null,
  mode text not null constraint deliveries_mode_known check (mode in ('automatic', 'byHand')),
  state text not null constraint deliveries_state_known check (
    state in ('waiting', 'sending', 'sent', 'failed', 'held', 'withdrawn')
  ),
  idempotency_key text not null,
  parcel jsonb not null,
  due_at timestamptz not null,
  next_try_at timestamptz not null,
  attempts integer not null default 0,
  unsure boolean not null default false,
  lease_until timestamptz,
  words text not null default '',
  created_at timestamptz not null,
  constraint deliveries_post_of_brand foreign key (brand_id, post_id) references posts (brand_id, id)
);
-- A post has one delivery that counts; withdrawn ones stay as a record.
create unique index deliveries_one_current on deliveries (post_id) where state <> 'withdrawn';
create index deliveries_due on deliveries (next_try_at) where state in ('waiting', 'sending');

-- Every try, written before the network is called, so that none can be forgotten.
create table delivery_attempts (
  id uuid primary key,
  delivery_id uuid not null references deliveries (id),
  number integer not null,
  started_at timestamptz not null,
  ended_at timestamptz,
  outcome text,
  words text not null default '',
  constraint attempts_numbered unique (delivery_id, number)
);

-- Who did what, and when. actor_id is null where Bimlo did it.
create table history (
  id bigint generated always as identity primary key,
  brand_id uuid not null references brands (id),
  at timestamptz not null,
  actor_id uuid references people (id),
  subject text not null constraint history_subject_known check (subject in ('piece', 'post', 'media', 'delivery')),
  subject_id uuid not null,
  deed text not null,
  detail jsonb not null default '{}'
);
create index history_by_subject on history (subject_id, id);

-- Facts about this data folder, such as whether it holds the demo.
create table folder_facts (
  key text primary key,
  value text not null
);
