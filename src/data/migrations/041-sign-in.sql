-- Who signs in, from where, and with what link they came. Passwords and links are kept so that nobody can read them out.
create table credentials (
  person_id uuid primary key references people (id) on delete cascade,
  password_hash text not null,
  set_at timestamptz not null
);

create table sign_ins (
  id uuid primary key,
  person_id uuid not null references people (id) on delete cascade,
  begun_at timestamptz not null,
  last_at timestamptz not null,
  address text not null,
  agent text not null
);
create index sign_ins_by_person on sign_ins (person_id);

create table entry_links (
  id uuid primary key,
  key_hash bytea not null constraint entry_links_key_unique unique,
  person_id uuid not null references people (id) on delete cascade,
  purpose text not null constraint entry_links_purpose_known check (purpose in ('invitation', 'password')),
  made_by uuid references people (id) on delete set null,
  made_at timestamptz not null,
  expires_at timestamptz not null
);
-- A new link for somebody takes the place of the one before.
create unique index entry_links_one_each on entry_links (person_id);

create table wrong_passwords (
  subject text primary key,
  wrong integer not null,
  last_at timestamptz not null
);

create table audit (
  id bigint generated always as identity primary key,
  at timestamptz not null,
  kind text not null,
  actor_id uuid references people (id) on delete set null,
  person_id uuid references people (id) on delete set null,
  brand_id uuid references brands (id) on delete set null,
  address text,
  detail text
);
create index audit_by_time on audit (at desc, id desc);

-- What seals the cookies of this house, made when it is first needed.
create table house_keys (
  only_row boolean primary key default true constraint house_keys_one check (only_row),
  cookie_key text not null
);
