-- One model of what comes again: series, evergreen and seasonal work.
alter table series rename to repeats;
alter table repeats rename constraint series_pkey to repeats_pkey;
alter table repeats rename constraint series_of_brand to repeats_of_brand;
alter table repeats rename constraint series_piece_of_brand to repeats_piece_of_brand;
alter table repeats rename constraint series_channel_of_brand to repeats_channel_of_brand;
alter table repeats rename constraint series_brand_id_fkey to repeats_brand_id_fkey;
alter table repeats rename constraint series_owner_id_fkey to repeats_owner_id_fkey;
alter table repeats rename constraint series_ahead_known to repeats_ahead_known;
alter table repeats rename column recurrence to rule;
alter table repeats
  add column kind text not null default 'series' constraint repeats_kind_known check (kind in ('series', 'evergreen', 'seasonal')),
  add column times integer constraint repeats_times_known check (times between 1 and 1000),
  add column first_number integer not null default 1,
  add column days_before smallint not null default 0 constraint repeats_days_before_known check (days_before between 0 and 60),
  add column work_days smallint constraint repeats_work_days_known check (work_days between 30 and 90);
alter table repeats add constraint repeats_seasonal_work check ((kind = 'seasonal') = (work_days is not null));

alter table posts rename column series_id to repeat_id;
alter table posts rename column series_number to repeat_number;
alter table posts rename constraint posts_series_of_brand to posts_repeat_of_brand;
alter table posts rename constraint posts_series_numbered to posts_repeat_numbered;
alter index posts_series_number rename to posts_repeat_number;

update repeats r set first_number = coalesce((select min(p.repeat_number) from posts p where p.repeat_id = r.id), r.next_number);

alter table history drop constraint history_subject_known;
update history set subject = 'repeat' where subject = 'series';
alter table history add constraint history_subject_known
  check (subject in ('piece', 'post', 'media', 'delivery', 'channel', 'brand', 'repeat', 'rule sheet'));
update setting_versions set setting = 'repeat' where setting = 'series';
update changes set items = '[]', final = 'It was done before series became repeats.'
  where jsonb_path_exists(items, '$[*] ? (@.subject == "series")');

-- Posts that were said to come again every so many weeks become repeats of their own: what is out and planned of each family are its first posts.
create temporary table evergreen on commit drop as
  select distinct on (coalesce(p.encore_of, p.id)) coalesce(p.encore_of, p.id) as root_id, gen_random_uuid() as new_id, p.*
  from posts p
  where p.lasting = 'evergreen' and p.stage = 'published' and p.deleted_at is null and p.repeat_id is null and p.plan_date is not null
    and exists (select 1 from channels c where c.id = p.channel_id and c.archived_at is null)
  order by coalesce(p.encore_of, p.id), p.published_at desc;
create temporary table evergreen_posts on commit drop as
  select p.id, e.new_id as repeat_id, p.plan_date, row_number() over (partition by e.new_id order by p.plan_date, p.id) as number
  from evergreen e join posts p on (p.id = e.root_id or p.encore_of = e.root_id) and p.channel_id = e.channel_id
  where p.deleted_at is null and p.stage <> 'setAside' and p.plan_date is not null and p.repeat_id is null;
insert into repeats (id, brand_id, piece_id, channel_id, kind, name, format, rule, at_time, from_date, ahead, next_number, last_round, owner_id)
  select e.new_id, e.brand_id, e.piece_id, e.channel_id, 'evergreen', e.title, e.format,
    jsonb_build_object('kind', 'weekly', 'weekday', extract(isodow from e.plan_date)::int, 'every', e.again_weeks),
    coalesce(e.plan_time, '10:00'), e.plan_date, 1,
    (select max(x.number) + 1 from evergreen_posts x where x.repeat_id = e.new_id),
    (select max(x.plan_date) from evergreen_posts x where x.repeat_id = e.new_id), e.owner_id
  from evergreen e;
update posts p set repeat_id = x.repeat_id, repeat_number = x.number from evergreen_posts x where x.id = p.id;

alter table posts drop constraint posts_evergreen_weeks;
update posts set lasting = '' where lasting = 'evergreen';
alter table posts drop column again_weeks;
alter table posts drop constraint posts_lasting_known;
alter table posts add constraint posts_lasting_known check (lasting in ('', 'dated'));

-- The column that shows a post’s number is named in addresses of saved views.
update saved_views set address = regexp_replace(address, '(=|,|%2C)series(?=&|,|%2C|$)', '\1repeat', 'g') where address ~ 'series';
