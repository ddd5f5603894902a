-- What a picture came to when it was made ready to leave: by its content and what is done to it (core's Recipe as text).
create table renditions (
  sha256 text not null constraint renditions_sha256_hex check (sha256 ~ '^[0-9a-f]{64}$'),
  recipe text not null,
  mime text not null,
  width integer not null,
  height integer not null,
  bytes bigint not null,
  primary key (sha256, recipe)
);

-- The recipe of a picture as `renditions` names it.
alter table media add column recipe text not null generated always as (
  coalesce(crop::text, '') || '|' || coalesce(to_mime, '') || '|' || coalesce(to_bytes::text, '')
) stored
