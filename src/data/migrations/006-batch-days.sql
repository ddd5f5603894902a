-- Several steps of one sort done in one sitting. `needs` is a list of { text, done }.
create table batch_days (
  id uuid primary key,
  brand_id uuid not null references brands (id),
  work text not null,
  name text not null,
  day date not null,
  starts_at time(0) not null,
  needs jsonb not null default '[]',
  created_by uuid not null references people (id),
  version integer not null default 1,
  constraint batch_days_of_brand unique (brand_id, id)
);
create index batch_days_by_day on batch_days (brand_id, day);

-- A step stands in one batch day at most, at its place in the running order.
alter table steps add column batch_id uuid, add column batch_position integer,
  add constraint steps_batch_of_brand foreign key (brand_id, batch_id) references batch_days (brand_id, id);
create index steps_by_batch on steps (batch_id, batch_position) where batch_id is not null;
