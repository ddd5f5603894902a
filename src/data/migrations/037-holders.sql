-- Processes that carry deliveries or run jobs. `beat` grows while one lives: what it holds is taken over only by a process that
-- saw it stand still for long enough by its own steady clock, whatever the clocks on the wall say.
create table holders (
  id uuid primary key,
  beat bigint not null default 0
);
-- Who holds it while it is being sent; null where nobody does.
alter table deliveries drop column lease_until, add column holder_id uuid;
-- Grows each time it becomes unsure anew, so that an answer to an older question does not settle a newer doubt.
alter table deliveries add column doubts integer not null default 0;
-- Who runs it; null while nobody does.
alter table jobs drop column lease_until, add column holder_id uuid;
