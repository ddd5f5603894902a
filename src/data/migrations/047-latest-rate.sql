-- The engagement rate of each post by its last reading, kept as readings come and go, so that what did well is found by an index
-- however many posts there are: engagement by reach, else by views (core's `engagementRate`); null without numbers.
alter table posts add column rate double precision;

create function rate_posts(ids uuid[]) returns void language sql as $$
  update posts p set rate = x.rate
  from (
    select i.id, coalesce(l.engagement / nullif(l.reach, 0), l.engagement / nullif(l.views, 0)) as rate
    from unnest(ids) as i (id)
    left join lateral (
      select reach::float8 as reach, views::float8 as views,
        case when num_nonnulls(likes, comments, shares, saves) > 0 then
          coalesce(likes, 0)::float8 + coalesce(comments, 0) + coalesce(shares, 0) + coalesce(saves, 0) end as engagement
      from readings where post_id = i.id order by read_at desc limit 1
    ) l on true
  ) x
  where p.id = x.id and p.rate is distinct from x.rate
$$;

create function rate_read_posts() returns trigger language plpgsql as $$
begin
  perform rate_posts(array(select distinct post_id from changed));
  return null;
end $$;
create trigger readings_added_rate after insert on readings referencing new table as changed
  for each statement execute function rate_read_posts();
create trigger readings_changed_rate after update on readings referencing new table as changed
  for each statement execute function rate_read_posts();
create trigger readings_removed_rate after delete on readings referencing old table as changed
  for each statement execute function rate_read_posts();

select rate_posts(array(select distinct post_id from readings));

-- Posts that are out, by how they did, by when, those without numbers by when, and those that come again however they did.
create index posts_out_by_rate on posts (channel_id, format, rate)
  where stage = 'published' and deleted_at is null and rate is not null;
create index posts_out_by_time on posts (brand_id, published_at) where stage = 'published' and deleted_at is null;
create index posts_out_unrated on posts (brand_id, published_at)
  where stage = 'published' and deleted_at is null and rate is null;
create index posts_out_evergreen on posts (brand_id)
  where stage = 'published' and deleted_at is null and lasting = 'evergreen';
