-- How many days ahead a channel should be filled.
alter table channels add column aim_days integer not null default 14
  constraint channels_aim_known check (aim_days between 1 and 90);

-- Days on which a brand publishes nothing.
create table brand_days_off (
  id uuid primary key,
  brand_id uuid not null references brands (id),
  name text not null default '',
  from_date date not null,
  to_date date not null,
  constraint days_off_in_order check (to_date >= from_date)
);
create index days_off_by_brand on brand_days_off (brand_id, from_date);

-- A brand's themes.
create table pillars (
  id uuid primary key,
  brand_id uuid not null references brands (id),
  name text not null,
  color text not null constraint pillars_color_hex check (color ~ '^#[0-9A-Fa-f]{6}$'),
  position integer not null default 0,
  archived_at timestamptz,
  constraint pillars_name_unique unique (brand_id, name),
  constraint pillars_of_brand unique (brand_id, id)
);

-- What a brand pushes for a while.
create table campaigns (
  id uuid primary key,
  brand_id uuid not null references brands (id),
  name text not null,
  color text not null constraint campaigns_color_hex check (color ~ '^#[0-9A-Fa-f]{6}$'),
  from_date date,
  to_date date,
  archived_at timestamptz,
  constraint campaigns_name_unique unique (brand_id, name),
  constraint campaigns_of_brand unique (brand_id, id),
  constraint campaigns_in_order check (to_date is null or from_date is null or to_date >= from_date)
);

-- What a channel should publish and when; `recurrence` is core's Recurrence.
create table rhythm_entries (
  id uuid primary key,
  brand_id uuid not null,
  channel_id uuid not null,
  position integer not null,
  recurrence jsonb not null,
  at_time time(0) not null,
  format text,
  theme text not null default '',
  pillar_id uuid,
  from_date date,
  to_date date,
  constraint rhythm_channel_of_brand foreign key (brand_id, channel_id) references channels (brand_id, id),
  constraint rhythm_pillar_of_brand foreign key (brand_id, pillar_id) references pillars (brand_id, id)
);
create index rhythm_by_brand on rhythm_entries (brand_id, channel_id, position);

-- Spans of days in which a channel asks for nothing.
create table rhythm_pauses (
  id uuid primary key,
  brand_id uuid not null,
  channel_id uuid not null,
  name text not null default '',
  from_date date not null,
  to_date date not null,
  constraint pauses_channel_of_brand foreign key (brand_id, channel_id) references channels (brand_id, id),
  constraint pauses_in_order check (to_date >= from_date)
);
create index pauses_by_brand on rhythm_pauses (brand_id, channel_id);

-- A recurring theme that makes its next posts ahead, numbered; `recurrence` is core's Recurrence.
create table series (
  id uuid primary key,
  brand_id uuid not null references brands (id),
  piece_id uuid not null,
  channel_id uuid not null,
  name text not null,
  format text not null,
  recurrence jsonb not null,
  at_time time(0) not null,
  from_date date not null,
  to_date date,
  ahead integer not null default 4 constraint series_ahead_known check (ahead between 1 and 26),
  next_number integer not null default 1,
  owner_id uuid not null references people (id),
  ended_at timestamptz,
  version integer not null default 1,
  constraint series_of_brand unique (brand_id, id),
  constraint series_piece_of_brand foreign key (brand_id, piece_id) references pieces (brand_id, id),
  constraint series_channel_of_brand foreign key (brand_id, channel_id) references channels (brand_id, id)
);

alter table posts
  add column pillar_id uuid,
  add column campaign_id uuid,
  add column series_id uuid,
  add column series_number integer,
  add column search tsvector generated always as (
    to_tsvector('simple', title || ' ' || headline || ' ' || left(caption, 20000))
  ) stored,
  add constraint posts_pillar_of_brand foreign key (brand_id, pillar_id) references pillars (brand_id, id),
  add constraint posts_campaign_of_brand foreign key (brand_id, campaign_id) references campaigns (brand_id, id),
  add constraint posts_series_of_brand foreign key (brand_id, series_id) references series (brand_id, id),
  add constraint posts_series_numbered check ((series_id is null) = (series_number is null));
-- Words of title and caption.
create index posts_by_words on posts using gin (search) where deleted_at is null;
-- A series has each number once.
create unique index posts_series_number on posts (series_id, series_number) where series_id is not null and deleted_at is null;
-- The stages arrangement reads each stage by date.
create index posts_by_stage on posts (brand_id, stage, plan_date) where deleted_at is null and archived_at is null;

-- A kept set of filters, facts and arrangement, for its owner or for all who work for the brand.
create table readings (
  id uuid primary key,
  brand_id uuid not null references brands (id),
  owner_id uuid not null references people (id),
  name text not null,
  shared boolean not null default false,
  address text not null,
  constraint readings_name_unique unique (brand_id, owner_id, name)
);

-- Changes made on the calendar, with what was before, so that they can be undone.
create table calendar_changes (
  id uuid primary key,
  brand_id uuid not null references brands (id),
  actor_id uuid not null references people (id),
  number bigint generated always as identity,
  at timestamptz not null,
  label text not null,
  items jsonb not null,
  undone_at timestamptz
);
create index changes_by_actor on calendar_changes (actor_id, brand_id, number desc);

-- Files of dates to plan around, and the dates they gave.
create table date_files (
  id uuid primary key,
  brand_id uuid not null references brands (id),
  name text not null,
  file_name text not null,
  imported_at timestamptz not null,
  reckoned_to date not null,
  constraint date_files_name_unique unique (brand_id, name)
);
create table known_dates (
  id bigint generated always as identity primary key,
  brand_id uuid not null references brands (id),
  file_id uuid not null references date_files (id) on delete cascade,
  title text not null,
  from_date date not null,
  to_date date not null,
  at_time time(0)
);
create index known_dates_by_day on known_dates (brand_id, from_date, to_date);

-- What a CSV file brought in, so that the same rows change it next time; and how its columns were meant.
create table brought_in (
  brand_id uuid not null references brands (id),
  source text not null,
  row_key text not null,
  post_id uuid not null references posts (id),
  primary key (brand_id, source, row_key)
);
create table import_mappings (
  brand_id uuid not null references brands (id),
  header text not null,
  mapping jsonb not null,
  primary key (brand_id, header)
);

alter table history drop constraint history_subject_known;
alter table history add constraint history_subject_known
  check (subject in ('piece', 'post', 'media', 'delivery', 'channel', 'brand', 'series', 'rule sheet'));

-- Words of a piece's title.
create index pieces_by_words on pieces using gin (to_tsvector('simple', title)) where deleted_at is null;
