-- What a brand lets its makers do beside making: send posts (null: they do, unless it asks for sign-off), and import and export.
alter table brands add column makers_send boolean;
alter table brands add column makers_exchange boolean not null default false;
