-- Fan-outs as a brand set them; those it never touched are the shipped ones.
create table fan_outs (
  brand_id uuid not null references brands (id),
  slug text not null,
  name text not null,
  for_kind text,
  -- [{"network", "format", "count", "source", "offset", "gap"}, …]
  rows jsonb not null,
  -- Drawn up by itself for each piece of its kind as soon as its text is there.
  is_standing boolean not null default false,
  primary key (brand_id, slug)
);
