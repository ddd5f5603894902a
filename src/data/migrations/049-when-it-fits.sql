-- For which kinds of piece, networks, days and words an item of the shelf is put into drafts, and until when; empty for any.
alter table shelf_items add column fits jsonb not null default '{}';
