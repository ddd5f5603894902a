-- What is used again and again while writing.
create table shelf_items (
  id uuid primary key,
  brand_id uuid not null references brands (id),
  kind text not null constraint shelf_items_kind_known check (kind in ('hashtags', 'callToAction', 'link', 'quote', 'reply')),
  title text not null,
  text text not null,
  source text not null default '',
  created_at timestamptz not null,
  deleted_at timestamptz,
  version integer not null default 1
);
create index shelf_items_by_brand on shelf_items (brand_id, kind, title) where deleted_at is null;

-- Into which posts an item was put, and when last.
create table shelf_uses (
  item_id uuid not null references shelf_items (id),
  post_id uuid not null references posts (id),
  at timestamptz not null,
  primary key (item_id, post_id)
);

-- People and places to name. `handles` holds what they are called on a network, by the slug of its rule sheet.
create table names (
  id uuid primary key,
  brand_id uuid not null references brands (id),
  kind text not null constraint names_kind_known check (kind in ('person', 'place')),
  name text not null,
  handles jsonb not null default '{}',
  deleted_at timestamptz,
  version integer not null default 1
);
create index names_by_brand on names (brand_id, name) where deleted_at is null;

-- The brand sheet: colours and fonts as text, logos, portraits and font files by content hash.
create table brand_assets (
  id uuid primary key,
  brand_id uuid not null references brands (id),
  kind text not null constraint brand_assets_kind_known check (kind in ('colour', 'font', 'logo', 'portrait')),
  name text not null,
  value text not null default '',
  sha256 text constraint brand_assets_sha256_hex check (sha256 ~ '^[0-9a-f]{64}$'),
  mime text,
  bytes bigint,
  file_name text,
  position integer not null default 0,
  constraint brand_assets_file_whole check ((sha256 is null) = (mime is null) and (sha256 is null) = (file_name is null))
);
create index brand_assets_by_brand on brand_assets (brand_id, kind, position);
create index brand_assets_by_content on brand_assets (sha256) where sha256 is not null;
