-- A brand's folder turned out to be older than what ran last on it. Until a manager has released what waits, nothing of it leaves by itself.
create table restores (
  id uuid primary key,
  brand_id uuid not null constraint restores_of_brand references brands (id),
  found_at timestamptz not null,
  -- How far the folder reached when it was found; null where it does not say.
  restored_to timestamptz,
  signs text[] not null,
  -- Posts that networks had and the folder did not know to be published.
  taken_over integer not null default 0,
  released_at timestamptz,
  released_by uuid constraint restores_released_by_person references people (id)
);
create unique index restores_one_open on restores (brand_id) where released_at is null;
-- It is not sent, and nobody is asked to post it, before somebody released it.
alter table deliveries add column awaits_release boolean not null default false;
create index deliveries_awaiting_release on deliveries (brand_id) where awaits_release;
-- Accounts that have not told yet what they hold of this house's posts: before that nothing leaves on their channels.
create table accounts_to_ask (
  channel_id uuid primary key constraint accounts_to_ask_channel references channels (id) on delete cascade,
  since timestamptz not null
);
create index deliveries_by_key on deliveries (idempotency_key);
-- When its network took it, as far as is known; null where it did not, or nobody knows.
alter table deliveries add column took_at timestamptz;
update deliveries d set took_at = coalesce(p.published_at, d.due_at) from posts p where p.id = d.post_id and d.state = 'sent';
