-- A piece's text as it is read, kept so that it is worked out once. `of_text` says of which text it is: another one is read anew.
create table read_texts (
  piece_id uuid primary key constraint read_texts_piece references pieces (id) on delete cascade,
  of_text text not null,
  reading jsonb not null
);
