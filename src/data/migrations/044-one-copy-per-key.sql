-- What a network took under a key is one copy. Of those that were noted more than once the one that counts stays, else the first.
delete from deliveries d
where d.state = 'withdrawn' and exists (
  select 1 from deliveries o
  where o.idempotency_key = d.idempotency_key and o.id <> d.id
    and (o.state <> 'withdrawn' or (o.created_at, o.id) < (d.created_at, d.id))
);
drop index deliveries_by_key;
create unique index deliveries_by_key on deliveries (idempotency_key);
