-- What networks said of a post, each time somebody or something looked.
create table readings (
  post_id uuid not null references posts (id),
  read_at timestamptz not null,
  reach integer constraint readings_reach_known check (reach >= 0),
  views integer constraint readings_views_known check (views >= 0),
  likes integer constraint readings_likes_known check (likes >= 0),
  comments integer constraint readings_comments_known check (comments >= 0),
  shares integer constraint readings_shares_known check (shares >= 0),
  saves integer constraint readings_saves_known check (saves >= 0),
  clicks integer constraint readings_clicks_known check (clicks >= 0),
  follows integer constraint readings_follows_known check (follows >= 0),
  watch_seconds bigint constraint readings_watch_seconds_known check (watch_seconds >= 0),
  primary key (post_id, read_at)
);

-- The first post of those that are the same one again on the same channel; null for one that is none of another.
alter table posts add column encore_of uuid references posts (id);
create index posts_by_encore on posts (encore_of) where encore_of is not null and deleted_at is null;

-- Whether it may come again: '' for when it did well, 'dated' for never, 'evergreen' for every so many weeks.
alter table posts add column lasting text not null default '' constraint posts_lasting_known check (lasting in ('', 'dated', 'evergreen'));
alter table posts add column again_weeks smallint constraint posts_again_weeks_known check (again_weeks between 1 and 104);
alter table posts add constraint posts_evergreen_weeks check ((lasting = 'evergreen') = (again_weeks is not null));

-- Days after which a published post is old enough to come again.
alter table brands add column encore_days smallint not null default 60 constraint brands_encore_days_known check (encore_days between 7 and 730);
