-- Numbers that an import brought in can be undone: how much a piece was engaged with is counted anew then too.
create trigger readings_removed after delete on readings referencing old table as changed
  for each statement execute function recount_uses_of_read_posts();
