-- The stage is called production and the format board picture, wherever they are kept: in columns, in rules, in what waits to
-- leave or has left, in what can be undone, and in the addresses of saved views.
alter table posts drop constraint posts_stage_known;
update posts set stage = 'production' where stage = 'making';
update posts set stage_before = 'production' where stage_before = 'making';
alter table posts add constraint posts_stage_known check (
  stage in ('drafting', 'production', 'signOff', 'ready', 'scheduled', 'published', 'setAside')
);
update posts set format = 'boardPicture' where format = 'wallImage';
update posts set signed_off = replace(signed_off::text, '"wallImage"', '"boardPicture"')::jsonb where signed_off::text like '%"wallImage"%';
update posts set not_sent = replace(not_sent::text, '"wallImage"', '"boardPicture"')::jsonb where not_sent::text like '%"wallImage"%';
update series set format = 'boardPicture' where format = 'wallImage';
update rhythm_entries set format = 'boardPicture' where format = 'wallImage';
insert into prep_sheets (brand_id, subject) select brand_id, 'boardPicture' from prep_sheets where subject = 'wallImage';
update prep_lines set subject = 'boardPicture' where subject = 'wallImage';
delete from prep_sheets where subject = 'wallImage';
update setting_versions set key = replace(key, ' wallImage', ' boardPicture') where setting = 'prep sheet';
update rule_sheets set rules = replace(rules::text, '"wallImage"', '"boardPicture"')::jsonb;
update deliveries set parcel = replace(parcel::text, '"wallImage"', '"boardPicture"')::jsonb where parcel::text like '%"wallImage"%';
update calendar_changes set items = replace(replace(items::text, '"wallImage"', '"boardPicture"'), '"making"', '"production"')::jsonb;
alter table readings rename to saved_views;
alter table saved_views rename constraint readings_name_unique to saved_views_name_unique;
alter table saved_views rename constraint readings_pkey to saved_views_pkey;
update saved_views set address = regexp_replace(
  regexp_replace(address, '((?:^|&)stage=(?:[^&]*(?:,|%2C))?)making(?=$|[&,]|%2C)', '\1production'),
  '((?:^|&)format=(?:[^&]*(?:,|%2C))?)wallImage(?=$|[&,]|%2C)', '\1boardPicture');
-- A rule sheet says what kind of network it is of.
update rule_sheets set rules = rules || jsonb_build_object('kind', case
  when slug = 'glassrow' or rules->>'about' = 'photo feed' then 'photoFeed'
  when slug = 'tallclip' or rules->>'about' = 'short vertical video' then 'shortVideo'
  when slug = 'benchfeed' or rules->>'about' = 'professional feed' then 'professionalFeed'
  when slug = 'pithline' or rules->>'about' = 'microblog' then 'microblog'
  when slug = 'corkwall' or rules->>'about' = 'image board' then 'pictureBoard'
  when slug = 'hourlight' or rules->>'about' = 'long video' then 'longVideo'
  when slug = 'lettermill' or rules->>'about' = 'newsletter' then 'newsletter'
  when slug = 'inkfold' or rules->>'about' = 'blog' then 'blog'
  when slug = 'homestoop' or rules->>'about' = 'personal profile' then 'personalProfile'
  else 'own' end)
