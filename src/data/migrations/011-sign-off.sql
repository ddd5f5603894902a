-- A brand may ask that every post be signed off before it is ready.
alter table brands add column asks_sign_off boolean not null default false;

-- Who signed a post off and when, with the copy that was looked at (core's SignOff); null while nobody did.
alter table posts add column signed_off jsonb;
