-- When people work, and what they can do. weekdays: 1 for Monday to 7 for Sunday.
alter table people
  add column zone text not null default 'UTC',
  add column weekdays smallint[] not null default '{1,2,3,4,5}',
  add column minutes_per_day integer not null default 360
    constraint people_minutes_known check (minutes_per_day between 0 and 1440),
  add column color text not null default '#5C6470' constraint people_color_hex check (color ~ '^#[0-9A-Fa-f]{6}$'),
  add column crafts text[] not null default '{}';

create table people_days_off (
  id uuid primary key,
  person_id uuid not null references people (id),
  name text not null default '',
  from_date date not null,
  to_date date not null,
  constraint people_days_off_in_order check (to_date >= from_date)
);
create index people_days_off_by_person on people_days_off (person_id, from_date);

-- Whose steps no person does count in the brand's working days.
alter table brands add column weekdays smallint[] not null default '{1,2,3,4,5}';

-- The prep of a format in a brand; a brand without a row for it goes by the one that ships.
create table prep_sheets (
  brand_id uuid not null references brands (id),
  format text not null,
  primary key (brand_id, format)
);
create table prep_lines (
  brand_id uuid not null,
  format text not null,
  position integer not null,
  title text not null,
  work text not null,
  owner_id uuid references people (id),
  craft text,
  lead integer not null,
  lead_in text not null,
  minutes integer,
  note text not null default '',
  needed boolean not null default false,
  primary key (brand_id, format, position),
  constraint prep_lines_of_sheet foreign key (brand_id, format) references prep_sheets (brand_id, format)
);

-- Work on a post. Its day is counted back from the post's by core and kept here, since desks ask by day.
create table steps (
  id uuid primary key,
  brand_id uuid not null,
  post_id uuid not null,
  position integer not null,
  title text not null,
  work text not null constraint steps_work_known check (work in ('words', 'picture', 'recording', 'editing', 'sending')),
  owner_id uuid references people (id),
  craft text,
  lead integer not null constraint steps_lead_known check (lead between -365 and 365),
  lead_in text not null constraint steps_lead_in_known check (lead_in in ('working', 'calendar')),
  minutes integer,
  note text not null default '',
  needed boolean not null default false,
  pinned date,
  day date,
  planned_on date,
  done_at timestamptz,
  done_on date,
  done_by uuid references people (id),
  version integer not null default 1,
  constraint steps_post_of_brand foreign key (brand_id, post_id) references posts (brand_id, id),
  constraint steps_done_whole check ((done_at is null) = (done_on is null))
);
create index steps_by_post on steps (post_id, position);
-- A desk reads the open steps of a person by day.
create index steps_open_by_owner on steps (owner_id, day) where done_at is null;
-- The calendar's working dates.
create index steps_open_by_day on steps (brand_id, day) where done_at is null;

-- Wants of a post that a manager waived, with the reason.
alter table posts add column waived jsonb not null default '[]';
