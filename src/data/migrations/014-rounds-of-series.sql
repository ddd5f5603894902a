-- The last round a series made a post for, so that a post moved elsewhere leaves no round without one.
alter table series add column last_round date;
update series s set last_round = (
  select p.plan_date from posts p where p.series_id = s.id and p.plan_date is not null
  order by p.series_number desc limit 1
)
