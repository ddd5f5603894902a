-- Of a picture that was made from words: how it is set, so that it can be set anew; null for any other.
alter table media add column card jsonb;
