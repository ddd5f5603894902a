-- What runs by itself beside deliveries. Of each kind and subject one waits or runs at a time.
create table jobs (
  id uuid primary key,
  kind text not null,
  subject text not null default '',
  due_at timestamptz not null,
  lease_until timestamptz,
  tries integer not null default 0,
  result text not null default '',
  last_run_at timestamptz,
  constraint jobs_one_each unique (kind, subject)
);
create index jobs_due on jobs (due_at)
