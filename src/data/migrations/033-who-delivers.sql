-- Who delivers the posts of a brand: people, by hand; made-up networks, for practice; or those networks as if they were real ones,
-- which is what a demo has. A brand of before has the last; a new one begins by hand.
alter table brands add column delivers text not null default 'networks' check (delivers in ('byHand', 'practice', 'networks'));
alter table brands alter column delivers set default 'byHand';
-- Whether it went, or goes, to a network that is there for practice only.
alter table deliveries add column is_practice boolean not null default false;
