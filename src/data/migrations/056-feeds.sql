-- Private calendar feeds: of a person, or of a brand as a person sees it. Of the key in the address only a hash is kept.
create table feeds (
  id uuid primary key,
  key_hash bytea not null constraint feeds_key_unique unique,
  person_id uuid not null references people (id) on delete cascade,
  brand_id uuid references brands (id) on delete cascade,
  made_at timestamptz not null,
  used_at timestamptz,
  revoked_at timestamptz
);
create index feeds_of_person on feeds (person_id, made_at);
