-- That nothing of a brand is sent at present, since when, why and by whom; without a row all goes as timed.
create table brand_holds (
  brand_id uuid primary key references brands (id),
  reason text not null,
  since timestamptz not null,
  person_id uuid not null references people (id)
);
