-- What is done to a picture on its way out; the original stays as it is. `crop` is core's Crop.
alter table media
  add column crop jsonb,
  add column to_mime text constraint media_to_mime_known check (to_mime in ('image/jpeg', 'image/png', 'image/webp')),
  add column to_bytes bigint constraint media_to_bytes_positive check (to_bytes > 0);
