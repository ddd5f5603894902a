-- The writing service of a brand's team, if it has one: the one address that may be asked, and the key that is sent with it.
create table writing_services (
  brand_id uuid primary key references brands (id),
  address text not null,
  key text not null
);
-- What it wrote, by what it was asked and where, so that a preview can be worked out again without asking once more.
create table written_texts (
  brand_id uuid not null references brands (id),
  key text not null,
  texts jsonb not null,
  written_at timestamptz not null,
  primary key (brand_id, key)
);
