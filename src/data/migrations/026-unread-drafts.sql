-- The sentences of a draft that are not the piece's own: [{"field", "text"}, …]. Those that still stand as they were put in are unread.
alter table posts add column drafted jsonb not null default '[]';
