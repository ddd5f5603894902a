-- How long before its time people are told of a post that they post by hand.
alter table channels add column lead_minutes integer not null default 0
  constraint channels_lead_known check (lead_minutes between 0 and 1440);

-- What somebody is told of: once each person, post, kind, and occasion, which tells one time from the next.
create table notices (
  id uuid primary key,
  brand_id uuid not null references brands (id),
  person_id uuid not null references people (id),
  post_id uuid not null,
  kind text not null constraint notices_kind_known check (kind in ('dueByHand', 'notSent', 'unsure', 'held')),
  occasion text not null,
  due_at timestamptz not null,
  made_at timestamptz not null,
  read_at timestamptz,
  constraint notices_post_of_brand foreign key (brand_id, post_id) references posts (brand_id, id),
  constraint notices_once unique (post_id, kind, occasion, person_id)
);
create index notices_of_person on notices (person_id, made_at desc);
create index deliveries_in_trouble on deliveries (post_id) where state in ('failed', 'unknown', 'held');
