-- How often each thing that is set (a brand, a person, a rhythm …) was changed, so that a change based on an older state is
-- refused. What was never changed has no row: its version is 0.
create table setting_versions (
  setting text not null,
  key text not null,
  version integer not null,
  primary key (setting, key)
);
-- Both are versions now that are counted there.
alter table rule_sheets drop column version;
alter table series drop column version
