-- A step may be ticked as soon as the post shows that its work is done.
alter table steps add column ticks_itself boolean not null default false;
alter table prep_lines add column ticks_itself boolean not null default false;
