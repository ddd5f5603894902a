-- How long a video runs, in milliseconds; null for pictures.
alter table media add column duration_ms integer constraint media_duration_positive check (duration_ms > 0);

-- Every file that was taken in for a brand, once by its content, whether a post uses it or not.
create table library_files (
  brand_id uuid not null references brands (id),
  sha256 text not null constraint library_files_sha256_hex check (sha256 ~ '^[0-9a-f]{64}$'),
  mime text not null,
  width integer not null,
  height integer not null,
  duration_ms integer,
  bytes bigint not null,
  file_name text not null,
  added_at timestamptz not null,
  search tsvector generated always as (
    to_tsvector('simple', translate(file_name, '-_.', '   '))
  ) stored,
  primary key (brand_id, sha256)
);
create index library_files_by_age on library_files (brand_id, added_at desc, sha256);
create index library_files_by_words on library_files using gin (search);
create index library_files_by_content on library_files (sha256);
-- Pictures are found by what is said of them.
create index media_by_words on media using gin (to_tsvector('simple', alt));
create index media_of_brand on media (brand_id, sha256);

insert into library_files (brand_id, sha256, mime, width, height, bytes, file_name, added_at)
select distinct on (brand_id, sha256) brand_id, sha256, mime, width, height, bytes, file_name, added_at
from media order by brand_id, sha256, added_at;
