-- What was deleted lately is looked for by brand; few posts are.
create index posts_deleted on posts (brand_id, deleted_at) where deleted_at is not null;
