-- Posts that were published and are taken down again: at once where their network does it, else by a person, who is reminded until it is done.
create table take_downs (
  post_id uuid primary key,
  brand_id uuid not null,
  reason text not null constraint take_downs_reason_given check (reason <> ''),
  way text not null constraint take_downs_way_known check (way in ('network', 'byHand')),
  asked_by uuid not null references people (id),
  asked_at timestamptz not null,
  done_at timestamptz,
  constraint take_downs_post_of_brand foreign key (brand_id, post_id) references posts (brand_id, id)
);
create index take_downs_of_brand on take_downs (brand_id, asked_at);
create index take_downs_to_do on take_downs (asked_at) where done_at is null;

alter table notices drop constraint notices_kind_known;
alter table notices add constraint notices_kind_known check (kind in ('dueByHand', 'notSent', 'unsure', 'held', 'takeDown'));
