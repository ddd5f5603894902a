-- “Some time between 13:00 and 15:00”: in a rhythm, and on a post until its minute is chosen.
alter table rhythm_entries add column until_time time(0);
alter table rhythm_entries add constraint rhythm_entries_window check (until_time > at_time);
-- The end of the window that begins at the post's time; the same as its time where it leaves at that very minute; null where the rhythm says.
alter table posts add column plan_until time(0);
-- Where the window began from which the post's minute was chosen; null while none was.
alter table posts add column window_from time(0);
-- Minutes that a chosen minute keeps from the other posts of the channel.
alter table channels add column distance_minutes smallint not null default 15
  constraint channels_distance_known check (distance_minutes between 0 and 720);
