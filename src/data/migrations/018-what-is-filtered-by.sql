-- New rules are held against the posts of their channels.
create index posts_by_channel on posts (channel_id, plan_date) where deleted_at is null;
-- What was done for a brand, the newest first.
create index history_by_brand on history (brand_id, id desc)
