-- A query for what is not deleted takes any index that holds only such rows for a narrow one, as long as no statistics tell
-- otherwise. So the index it should take holds only such rows as well.
drop index posts_by_piece;
create index posts_by_piece on posts (piece_id) where deleted_at is null
;
-- The open step before and after another.
create index steps_open_by_holder on steps (holder_id, position) where done_at is null
