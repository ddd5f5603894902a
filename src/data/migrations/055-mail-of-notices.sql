-- Where people are told by mail, and the hours in which they are not.
alter table people add column mail_address text not null default '',
  add column quiet_from time(0), add column quiet_to time(0),
  add constraint people_quiet_whole check ((quiet_from is null) = (quiet_to is null));

-- When a notice is mailed, or tried again; null where it is not to be, or was.
alter table notices add column mail_due_at timestamptz, add column mailed_at timestamptz,
  add column mail_tries integer not null default 0, add column mail_problem text not null default '';
create index notices_to_mail on notices (mail_due_at) where mail_due_at is not null;
