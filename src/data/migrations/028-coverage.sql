-- How much each piece was used, kept as posts, pieces and readings change, so that pieces page by it however many they are.
create table piece_uses (
  piece_id uuid primary key references pieces (id) on delete cascade,
  brand_id uuid not null references brands (id),
  made_at timestamptz not null,
  -- Neither deleted nor set aside, and with a text of its own or a post: all else is an idea.
  is_shown boolean not null,
  -- Posts that are neither deleted nor set aside.
  live integer not null,
  -- Likes, comments, shares and saves of its published posts, by the last reading of each.
  engagement bigint not null
);
create index piece_uses_newest on piece_uses (brand_id, made_at desc, piece_id) where is_shown;
create index piece_uses_least on piece_uses (brand_id, live, made_at desc, piece_id) where is_shown;
create index piece_uses_best on piece_uses (brand_id, engagement desc, made_at desc, piece_id) where is_shown;

create function recount_uses(ids uuid[]) returns void language sql as $$
  insert into piece_uses (piece_id, brand_id, made_at, is_shown, live, engagement)
  select g.id, g.brand_id, g.created_at,
    g.deleted_at is null and g.set_aside_at is null and (g.source_text ~ '\S' or o.posts > 0), o.live, o.engagement
  from (select unnest(ids) as id order by 1) x join pieces g on g.id = x.id
  cross join lateral (
    select count(*) as posts, count(*) filter (where p.stage <> 'setAside') as live, coalesce(sum(r.engagement), 0) as engagement
    from posts p left join lateral (
      select coalesce(likes, 0) + coalesce(comments, 0) + coalesce(shares, 0) + coalesce(saves, 0) as engagement
      from readings where post_id = p.id and p.stage = 'published' order by read_at desc limit 1
    ) r on true
    where p.piece_id = g.id and p.deleted_at is null
  ) o
  on conflict (piece_id) do update set is_shown = excluded.is_shown, live = excluded.live, engagement = excluded.engagement
$$;

create function recount_uses_of_new_pieces() returns trigger language plpgsql as $$
begin
  perform recount_uses(array(select id from changed));
  return null;
end $$;
create trigger pieces_added after insert on pieces referencing new table as changed
  for each statement execute function recount_uses_of_new_pieces();

create function recount_uses_of_changed_pieces() returns trigger language plpgsql as $$
begin
  perform recount_uses(array(
    select n.id from changed n join former o on o.id = n.id
    where (n.deleted_at is null) <> (o.deleted_at is null) or (n.set_aside_at is null) <> (o.set_aside_at is null)
      or (n.source_text ~ '\S') <> (o.source_text ~ '\S')));
  return null;
end $$;
create trigger pieces_changed after update on pieces referencing old table as former new table as changed
  for each statement execute function recount_uses_of_changed_pieces();

create function recount_uses_of_new_posts() returns trigger language plpgsql as $$
begin
  perform recount_uses(array(select distinct piece_id from changed));
  return null;
end $$;
create trigger posts_added after insert on posts referencing new table as changed
  for each statement execute function recount_uses_of_new_posts();

create function recount_uses_of_changed_posts() returns trigger language plpgsql as $$
begin
  perform recount_uses(array(
    select distinct unnest(array[n.piece_id, o.piece_id]) from changed n join former o on o.id = n.id
    where n.piece_id <> o.piece_id or n.stage <> o.stage or (n.deleted_at is null) <> (o.deleted_at is null)));
  return null;
end $$;
create trigger posts_changed after update on posts referencing old table as former new table as changed
  for each statement execute function recount_uses_of_changed_posts();

create function recount_uses_of_read_posts() returns trigger language plpgsql as $$
begin
  perform recount_uses(array(select distinct p.piece_id from changed c join posts p on p.id = c.post_id));
  return null;
end $$;
create trigger readings_added after insert on readings referencing new table as changed
  for each statement execute function recount_uses_of_read_posts();
create trigger readings_changed after update on readings referencing new table as changed
  for each statement execute function recount_uses_of_read_posts();

select recount_uses(array(select id from pieces));
