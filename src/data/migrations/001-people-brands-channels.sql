-- Who works here.
create table people (
  id uuid primary key,
  slug text not null constraint people_slug_unique unique,
  name text not null,
  role text not null constraint people_role_known check (role in ('manager', 'maker', 'reviewer')),
  position integer not null default 0,
  archived_at timestamptz
);

-- Whom the posts are for. week_start: 1 for Monday to 7 for Sunday.
create table brands (
  id uuid primary key,
  slug text not null constraint brands_slug_unique unique,
  name text not null,
  zone text not null,
  week_start smallint not null default 1 constraint brands_week_start_known check (week_start between 1 and 7),
  position integer not null default 0
);

-- Who works for which brand.
create table brand_people (
  brand_id uuid not null references brands (id),
  person_id uuid not null references people (id),
  primary key (brand_id, person_id)
);

-- What a kind of network allows; `rules` is core's RuleSheet.
create table rule_sheets (
  id uuid primary key,
  slug text not null constraint rule_sheets_slug_unique unique,
  name text not null,
  rules jsonb not null,
  version integer not null default 1
);

-- One account of a brand on one network.
create table channels (
  id uuid primary key,
  brand_id uuid not null references brands (id),
  rule_sheet_id uuid not null references rule_sheets (id),
  name text not null,
  call_sign text not null constraint channels_call_sign_two_letters check (call_sign ~ '^[A-Z]{2}$'),
  color text not null constraint channels_color_hex check (color ~ '^#[0-9A-Fa-f]{6}$'),
  account text not null,
  position integer not null default 0,
  archived_at timestamptz,
  constraint channels_call_sign_unique unique (brand_id, call_sign),
  constraint channels_of_brand unique (brand_id, id)
);
