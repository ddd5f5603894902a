-- The thing said. Every post belongs to one; without posts and source text it is an idea.
create table pieces (
  id uuid primary key,
  brand_id uuid not null references brands (id),
  title text not null,
  note text not null default '',
  link text not null default '',
  source_text text not null default '',
  owner_id uuid not null references people (id),
  created_at timestamptz not null,
  created_by uuid not null references people (id),
  set_aside_at timestamptz,
  set_aside_reason text not null default '',
  deleted_at timestamptz,
  version integer not null default 1,
  constraint pieces_of_brand unique (brand_id, id)
);
create index pieces_by_brand on pieces (brand_id, created_at desc, id) where deleted_at is null;

-- Channels suggested for a piece that have no post of it yet and were not waved off.
create table piece_suggestions (
  brand_id uuid not null,
  piece_id uuid not null,
  channel_id uuid not null,
  primary key (piece_id, channel_id),
  constraint suggestions_piece_of_brand foreign key (brand_id, piece_id) references pieces (brand_id, id),
  constraint suggestions_channel_of_brand foreign key (brand_id, channel_id) references channels (brand_id, id)
);
create index suggestions_by_brand on piece_suggestions (brand_id);

-- One publication of a piece on one channel. Its plan is a local date and time in the brand's zone.
create table posts (
  id uuid primary key,
  brand_id uuid not null references brands (id),
  piece_id uuid not null,
  channel_id uuid not null,
  format text not null,
  title text not null,
  headline text not null default '',
  caption text not null default '',
  hashtags text not null default '',
  link text not null default '',
  plan_date date,
  plan_time time(0),
  stage text not null constraint posts_stage_known check (
    stage in ('drafting', 'making', 'signOff', 'ready', 'scheduled', 'published', 'setAside')
  ),
  stage_before text,
  set_aside_reason text not null default '',
  owner_id uuid not null references people (id),
  created_at timestamptz not null,
  created_by uuid not null references people (id),
  published_at timestamptz,
  address text not null default '',
  archived_at timestamptz,
  deleted_at timestamptz,
  version integer not null default 1,
  constraint posts_of_brand unique (brand_id, id),
  constraint posts_piece_of_brand foreign key (brand_id, piece_id) references pieces (brand_id, id),
  constraint posts_channel_of_brand foreign key (brand_id, channel_id) references channels (brand_id, id),
  constraint posts_time_needs_date check (plan_time is null or plan_date is not null)
);
-- The calendar reads a span of days of a brand.
create index posts_by_day on posts (brand_id, plan_date) where deleted_at is null and archived_at is null;
-- The tray reads what has no date.
create index posts_undated on posts (brand_id, created_at desc)
  where plan_date is null and deleted_at is null and archived_at is null and stage <> 'setAside';
-- Departures look for what was due and has not left.
create index posts_scheduled on posts (brand_id, plan_date) where stage = 'scheduled' and deleted_at is null;
create index posts_by_piece on posts (piece_id);

-- A picture of a post. The file is named by its content hash; several rows may share one.
create table media (
  id uuid primary key,
  brand_id uuid not null,
  post_id uuid not null,
  position integer not null,
  sha256 text not null constraint media_sha256_hex check (sha256 ~ '^[0-9a-f]{64}$'),
  mime text not null,
  width integer not null,
  height integer not null,
  bytes bigint not null,
  file_name text not null,
  alt text not null default '',
  added_at timestamptz not null,
  constraint media_post_of_brand foreign key (brand_id, post_id) references posts (brand_id, id)
);
create index media_by_post on media (post_id, position);
create index media_by_content on media (sha256);
