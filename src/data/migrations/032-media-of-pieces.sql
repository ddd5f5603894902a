-- Pictures of a piece in their order, and its one recording: a video or a sound.
create table piece_media (
  id uuid primary key,
  brand_id uuid not null,
  piece_id uuid not null,
  position integer not null,
  sha256 text not null,
  mime text not null,
  width integer not null,
  height integer not null,
  duration_ms integer,
  bytes bigint not null,
  file_name text not null,
  alt text not null default '',
  added_at timestamptz not null,
  constraint piece_media_piece_of_brand foreign key (brand_id, piece_id) references pieces (brand_id, id)
);
create index piece_media_by_piece on piece_media (piece_id, position);
create index piece_media_by_content on piece_media (sha256);
