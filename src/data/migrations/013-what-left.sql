-- Since when nobody knows whether the network took it; null where that is known. It stays whatever happens to the post.
alter table deliveries add column unsure_since timestamptz;
update deliveries set unsure_since = coalesce(lease_until, next_try_at) where unsure;
alter table deliveries drop column unsure;

-- The channel it was copied for: its post may have been moved to another since.
alter table deliveries add column channel_id uuid;
update deliveries d set channel_id = p.channel_id from posts p where p.id = d.post_id;
alter table deliveries alter column channel_id set not null,
  add constraint deliveries_channel_of_brand foreign key (brand_id, channel_id) references channels (brand_id, id);

-- Lateness is counted from here: the due instant, or the moment a person said that it may go all the same.
alter table deliveries add column late_from timestamptz;
update deliveries set late_from = due_at;
alter table deliveries alter column late_from set not null;

-- When its network is asked again whether it is out, and how often it was asked by itself.
alter table deliveries add column ask_at timestamptz, add column asks integer not null default 0;

-- `unknown`: the tries are used up and nobody knows whether it is out.
alter table deliveries drop constraint deliveries_state_known,
  add constraint deliveries_state_known check (
    state in ('waiting', 'sending', 'sent', 'failed', 'held', 'unknown', 'withdrawn')
  );
update deliveries set state = 'unknown', ask_at = next_try_at where state = 'failed' and unsure_since is not null;
create index deliveries_unsure on deliveries (post_id) where unsure_since is not null;
create index deliveries_to_ask on deliveries (ask_at) where ask_at is not null;

-- What stood on the sheet of a published post when it went out with other words; null where nothing differs.
alter table posts add column not_sent jsonb
