-- The present schema, as all migrations together make it. Generated; not run by anything.

create table accounts_to_ask (
  channel_id uuid not null,
  since timestamp with time zone not null,
  constraint accounts_to_ask_pkey PRIMARY KEY (channel_id),
  constraint accounts_to_ask_channel FOREIGN KEY (channel_id) REFERENCES channels(id) ON DELETE CASCADE
);

create table answered_writes (
  actor_id uuid not null,
  key text not null,
  part integer not null,
  value jsonb,
  at timestamp with time zone not null,
  constraint answered_writes_pkey PRIMARY KEY (actor_id, key, part)
);
CREATE INDEX answered_writes_by_age ON public.answered_writes USING btree (at);

create table audit (
  id bigint not null generated always as identity,
  at timestamp with time zone not null,
  kind text not null,
  actor_id uuid,
  person_id uuid,
  brand_id uuid,
  address text,
  detail text,
  constraint audit_pkey PRIMARY KEY (id),
  constraint audit_actor_id_fkey FOREIGN KEY (actor_id) REFERENCES people(id) ON DELETE SET NULL,
  constraint audit_brand_id_fkey FOREIGN KEY (brand_id) REFERENCES brands(id) ON DELETE SET NULL,
  constraint audit_person_id_fkey FOREIGN KEY (person_id) REFERENCES people(id) ON DELETE SET NULL
);
CREATE INDEX audit_by_time ON public.audit USING btree (at DESC, id DESC);

create table batch_days (
  id uuid not null,
  brand_id uuid not null,
  work text not null,
  name text not null,
  day date not null,
  starts_at time(0) without time zone not null,
  needs jsonb not null default '[]'::jsonb,
  created_by uuid not null,
  version integer not null default 1,
  constraint batch_days_of_brand UNIQUE (brand_id, id),
  constraint batch_days_pkey PRIMARY KEY (id),
  constraint batch_days_brand_id_fkey FOREIGN KEY (brand_id) REFERENCES brands(id),
  constraint batch_days_created_by_fkey FOREIGN KEY (created_by) REFERENCES people(id)
);
CREATE INDEX batch_days_by_day ON public.batch_days USING btree (brand_id, day);

create table brand_assets (
  id uuid not null,
  brand_id uuid not null,
  kind text not null,
  name text not null,
  value text not null default ''::text,
  sha256 text,
  mime text,
  bytes bigint,
  file_name text,
  position integer not null default 0,
  constraint brand_assets_pkey PRIMARY KEY (id),
  constraint brand_assets_brand_id_fkey FOREIGN KEY (brand_id) REFERENCES brands(id),
  constraint brand_assets_file_whole CHECK ((((sha256 IS NULL) = (mime IS NULL)) AND ((sha256 IS NULL) = (file_name IS NULL)))),
  constraint brand_assets_kind_known CHECK ((kind = ANY (ARRAY['colour'::text, 'font'::text, 'logo'::text, 'portrait'::text]))),
  constraint brand_assets_sha256_hex CHECK ((sha256 ~ '^[0-9a-f]{64}$'::text))
);
CREATE INDEX brand_assets_by_brand ON public.brand_assets USING btree (brand_id, kind, "position");
CREATE INDEX brand_assets_by_content ON public.brand_assets USING btree (sha256) WHERE (sha256 IS NOT NULL);

create table brand_days_off (
  id uuid not null,
  brand_id uuid not null,
  name text not null default ''::text,
  from_date date not null,
  to_date date not null,
  constraint brand_days_off_pkey PRIMARY KEY (id),
  constraint brand_days_off_brand_id_fkey FOREIGN KEY (brand_id) REFERENCES brands(id),
  constraint days_off_in_order CHECK ((to_date >= from_date))
);
CREATE INDEX days_off_by_brand ON public.brand_days_off USING btree (brand_id, from_date);

create table brand_holds (
  brand_id uuid not null,
  reason text not null,
  since timestamp with time zone not null,
  person_id uuid not null,
  constraint brand_holds_pkey PRIMARY KEY (brand_id),
  constraint brand_holds_brand_id_fkey FOREIGN KEY (brand_id) REFERENCES brands(id),
  constraint brand_holds_person_id_fkey FOREIGN KEY (person_id) REFERENCES people(id)
);

create table brand_people (
  brand_id uuid not null,
  person_id uuid not null,
  constraint brand_people_pkey PRIMARY KEY (brand_id, person_id),
  constraint brand_people_brand_id_fkey FOREIGN KEY (brand_id) REFERENCES brands(id),
  constraint brand_people_person_id_fkey FOREIGN KEY (person_id) REFERENCES people(id)
);

create table brands (
  id uuid not null,
  slug text not null,
  name text not null,
  zone text not null,
  week_start smallint not null default 1,
  position integer not null default 0,
  weekdays smallint[] not null default '{1,2,3,4,5}'::smallint[],
  words_per_minute smallint not null default 150,
  asks_sign_off boolean not null default false,
  encore_days smallint not null default 60,
  delivers text not null default 'byHand'::text,
  makers_send boolean,
  makers_exchange boolean not null default false,
  constraint brands_slug_unique UNIQUE (slug),
  constraint brands_pkey PRIMARY KEY (id),
  constraint brands_delivers_check CHECK ((delivers = ANY (ARRAY['byHand'::text, 'practice'::text, 'networks'::text]))),
  constraint brands_encore_days_known CHECK (((encore_days >= 7) AND (encore_days <= 730))),
  constraint brands_week_start_known CHECK (((week_start >= 1) AND (week_start <= 7))),
  constraint brands_words_per_minute_known CHECK (((words_per_minute >= 60) AND (words_per_minute <= 300)))
);

create table brought_in (
  brand_id uuid not null,
  source text not null,
  row_key text not null,
  post_id uuid not null,
  constraint brought_in_pkey PRIMARY KEY (brand_id, source, row_key),
  constraint brought_in_brand_id_fkey FOREIGN KEY (brand_id) REFERENCES brands(id),
  constraint brought_in_post_id_fkey FOREIGN KEY (post_id) REFERENCES posts(id)
);

create table campaigns (
  id uuid not null,
  brand_id uuid not null,
  name text not null,
  color text not null,
  from_date date,
  to_date date,
  archived_at timestamp with time zone,
  constraint campaigns_name_unique UNIQUE (brand_id, name),
  constraint campaigns_of_brand UNIQUE (brand_id, id),
  constraint campaigns_pkey PRIMARY KEY (id),
  constraint campaigns_brand_id_fkey FOREIGN KEY (brand_id) REFERENCES brands(id),
  constraint campaigns_color_hex CHECK ((color ~ '^#[0-9A-Fa-f]{6}$'::text)),
  constraint campaigns_in_order CHECK (((to_date IS NULL) OR (from_date IS NULL) OR (to_date >= from_date)))
);

create table changes (
  id uuid not null,
  brand_id uuid not null,
  actor_id uuid not null,
  number bigint not null generated always as identity,
  at timestamp with time zone not null,
  label text not null,
  items jsonb not null,
  undone_at timestamp with time zone,
  final text,
  constraint changes_pkey PRIMARY KEY (id),
  constraint changes_actor_id_fkey FOREIGN KEY (actor_id) REFERENCES people(id),
  constraint changes_brand_id_fkey FOREIGN KEY (brand_id) REFERENCES brands(id)
);
CREATE INDEX changes_by_actor ON public.changes USING btree (actor_id, brand_id, number DESC);

create table channels (
  id uuid not null,
  brand_id uuid not null,
  rule_sheet_id uuid not null,
  name text not null,
  call_sign text not null,
  color text not null,
  account text not null,
  position integer not null default 0,
  archived_at timestamp with time zone,
  aim_days integer not null default 14,
  lead_minutes integer not null default 0,
  distance_minutes smallint not null default 15,
  constraint channels_call_sign_unique UNIQUE (brand_id, call_sign),
  constraint channels_of_brand UNIQUE (brand_id, id),
  constraint channels_pkey PRIMARY KEY (id),
  constraint channels_brand_id_fkey FOREIGN KEY (brand_id) REFERENCES brands(id),
  constraint channels_rule_sheet_id_fkey FOREIGN KEY (rule_sheet_id) REFERENCES rule_sheets(id),
  constraint channels_aim_known CHECK (((aim_days >= 1) AND (aim_days <= 90))),
  constraint channels_call_sign_two_letters CHECK ((call_sign ~ '^[A-Z]{2}$'::text)),
  constraint channels_color_hex CHECK ((color ~ '^#[0-9A-Fa-f]{6}$'::text)),
  constraint channels_distance_known CHECK (((distance_minutes >= 0) AND (distance_minutes <= 720))),
  constraint channels_lead_known CHECK (((lead_minutes >= 0) AND (lead_minutes <= 1440)))
);

create table credentials (
  person_id uuid not null,
  password_hash text not null,
  set_at timestamp with time zone not null,
  constraint credentials_pkey PRIMARY KEY (person_id),
  constraint credentials_person_id_fkey FOREIGN KEY (person_id) REFERENCES people(id) ON DELETE CASCADE
);

create table date_files (
  id uuid not null,
  brand_id uuid not null,
  name text not null,
  file_name text not null,
  imported_at timestamp with time zone not null,
  reckoned_to date not null,
  constraint date_files_name_unique UNIQUE (brand_id, name),
  constraint date_files_pkey PRIMARY KEY (id),
  constraint date_files_brand_id_fkey FOREIGN KEY (brand_id) REFERENCES brands(id)
);

create table deliveries (
  id uuid not null,
  brand_id uuid not null,
  post_id uuid not null,
  mode text not null,
  state text not null,
  idempotency_key text not null,
  parcel jsonb not null,
  due_at timestamp with time zone not null,
  next_try_at timestamp with time zone not null,
  attempts integer not null default 0,
  words text not null default ''::text,
  created_at timestamp with time zone not null,
  unsure_since timestamp with time zone,
  channel_id uuid not null,
  late_from timestamp with time zone not null,
  ask_at timestamp with time zone,
  asks integer not null default 0,
  is_practice boolean not null default false,
  holder_id uuid,
  doubts integer not null default 0,
  awaits_release boolean not null default false,
  took_at timestamp with time zone,
  constraint deliveries_pkey PRIMARY KEY (id),
  constraint deliveries_channel_of_brand FOREIGN KEY (brand_id, channel_id) REFERENCES channels(brand_id, id),
  constraint deliveries_post_of_brand FOREIGN KEY (brand_id, post_id) REFERENCES posts(brand_id, id),
  constraint deliveries_mode_known CHECK ((mode = ANY (ARRAY['automatic'::text, 'byHand'::text]))),
  constraint deliveries_state_known CHECK ((state = ANY (ARRAY['waiting'::text, 'sending'::text, 'sent'::text, 'failed'::text, 'held'::text, 'unknown'::text, 'withdrawn'::text])))
);
CREATE INDEX deliveries_awaiting_release ON public.deliveries USING btree (brand_id) WHERE awaits_release;
CREATE UNIQUE INDEX deliveries_by_key ON public.deliveries USING btree (idempotency_key);
CREATE INDEX deliveries_due ON public.deliveries USING btree (next_try_at) WHERE (state = ANY (ARRAY['waiting'::text, 'sending'::text]));
CREATE INDEX deliveries_in_trouble ON public.deliveries USING btree (post_id) WHERE (state = ANY (ARRAY['failed'::text, 'unknown'::text, 'held'::text]));
CREATE UNIQUE INDEX deliveries_one_current ON public.deliveries USING btree (post_id) WHERE (state <> 'withdrawn'::text);
CREATE INDEX deliveries_to_ask ON public.deliveries USING btree (ask_at) WHERE (ask_at IS NOT NULL);
CREATE INDEX deliveries_unsure ON public.deliveries USING btree (post_id) WHERE (unsure_since IS NOT NULL);

create table delivery_attempts (
  id uuid not null,
  delivery_id uuid not null,
  number integer not null,
  started_at timestamp with time zone not null,
  ended_at timestamp with time zone,
  outcome text,
  words text not null default ''::text,
  constraint attempts_numbered UNIQUE (delivery_id, number),
  constraint delivery_attempts_pkey PRIMARY KEY (id),
  constraint delivery_attempts_delivery_id_fkey FOREIGN KEY (delivery_id) REFERENCES deliveries(id)
);

create table drawn_up (
  piece_id uuid not null,
  fan_out text not null,
  at timestamp with time zone not null,
  constraint drawn_up_pkey PRIMARY KEY (piece_id, fan_out),
  constraint drawn_up_piece_id_fkey FOREIGN KEY (piece_id) REFERENCES pieces(id)
);

create table entry_links (
  id uuid not null,
  key_hash bytea not null,
  person_id uuid not null,
  purpose text not null,
  made_by uuid,
  made_at timestamp with time zone not null,
  expires_at timestamp with time zone not null,
  constraint entry_links_key_unique UNIQUE (key_hash),
  constraint entry_links_pkey PRIMARY KEY (id),
  constraint entry_links_made_by_fkey FOREIGN KEY (made_by) REFERENCES people(id) ON DELETE SET NULL,
  constraint entry_links_person_id_fkey FOREIGN KEY (person_id) REFERENCES people(id) ON DELETE CASCADE,
  constraint entry_links_purpose_known CHECK ((purpose = ANY (ARRAY['invitation'::text, 'password'::text])))
);
CREATE UNIQUE INDEX entry_links_one_each ON public.entry_links USING btree (person_id);

create table extracts (
  id uuid not null,
  brand_id uuid not null,
  piece_id uuid not null,
  kind text not null,
  state text not null,
  start_offset integer not null,
  end_offset integer not null,
  reason text not null default ''::text,
  created_at timestamp with time zone not null,
  created_by uuid not null,
  sign text not null default ''::text,
  constraint extracts_of_brand UNIQUE (brand_id, id),
  constraint extracts_pkey PRIMARY KEY (id),
  constraint extracts_brand_id_fkey FOREIGN KEY (brand_id) REFERENCES brands(id),
  constraint extracts_created_by_fkey FOREIGN KEY (created_by) REFERENCES people(id),
  constraint extracts_piece_of_brand FOREIGN KEY (brand_id, piece_id) REFERENCES pieces(brand_id, id),
  constraint extracts_in_order CHECK (((start_offset >= 0) AND (end_offset > start_offset))),
  constraint extracts_kind_known CHECK ((kind = ANY (ARRAY['quote'::text, 'point'::text, 'number'::text, 'question'::text, 'listStep'::text, 'clip'::text]))),
  constraint extracts_state_known CHECK ((state = ANY (ARRAY['accepted'::text, 'rejected'::text])))
);
CREATE INDEX extracts_by_piece ON public.extracts USING btree (piece_id, start_offset);
CREATE TRIGGER extract_named BEFORE INSERT ON public.extracts FOR EACH ROW EXECUTE FUNCTION name_extract();

create table fan_outs (
  brand_id uuid not null,
  slug text not null,
  name text not null,
  for_kind text,
  rows jsonb not null,
  is_standing boolean not null default false,
  constraint fan_outs_pkey PRIMARY KEY (brand_id, slug),
  constraint fan_outs_brand_id_fkey FOREIGN KEY (brand_id) REFERENCES brands(id)
);

create table feeds (
  id uuid not null,
  key_hash bytea not null,
  person_id uuid not null,
  brand_id uuid,
  made_at timestamp with time zone not null,
  used_at timestamp with time zone,
  revoked_at timestamp with time zone,
  constraint feeds_key_unique UNIQUE (key_hash),
  constraint feeds_pkey PRIMARY KEY (id),
  constraint feeds_brand_id_fkey FOREIGN KEY (brand_id) REFERENCES brands(id) ON DELETE CASCADE,
  constraint feeds_person_id_fkey FOREIGN KEY (person_id) REFERENCES people(id) ON DELETE CASCADE
);
CREATE INDEX feeds_of_person ON public.feeds USING btree (person_id, made_at);

create table folder_facts (
  key text not null,
  value text not null,
  constraint folder_facts_pkey PRIMARY KEY (key)
);

create table former_texts (
  id uuid not null default gen_random_uuid(),
  piece_id uuid not null,
  title text not null,
  link text not null,
  source_text text not null,
  cues jsonb not null,
  how_read jsonb,
  compared_with integer,
  constraint former_texts_pkey PRIMARY KEY (id),
  constraint former_texts_piece_id_fkey FOREIGN KEY (piece_id) REFERENCES pieces(id) ON DELETE CASCADE
);
CREATE INDEX former_texts_of_piece ON public.former_texts USING btree (piece_id);

create table history (
  id bigint not null generated always as identity,
  brand_id uuid not null,
  at timestamp with time zone not null,
  actor_id uuid,
  subject text not null,
  subject_id uuid not null,
  deed text not null,
  detail jsonb not null default '{}'::jsonb,
  constraint history_pkey PRIMARY KEY (id),
  constraint history_actor_id_fkey FOREIGN KEY (actor_id) REFERENCES people(id),
  constraint history_brand_id_fkey FOREIGN KEY (brand_id) REFERENCES brands(id),
  constraint history_subject_known CHECK ((subject = ANY (ARRAY['piece'::text, 'post'::text, 'media'::text, 'delivery'::text, 'channel'::text, 'brand'::text, 'repeat'::text, 'rule sheet'::text])))
);
CREATE INDEX history_by_brand ON public.history USING btree (brand_id, id DESC);
CREATE INDEX history_by_subject ON public.history USING btree (subject_id, id);

create table holders (
  id uuid not null,
  beat bigint not null default 0,
  constraint holders_pkey PRIMARY KEY (id)
);

create table house_keys (
  only_row boolean not null default true,
  cookie_key text not null,
  constraint house_keys_pkey PRIMARY KEY (only_row),
  constraint house_keys_one CHECK (only_row)
);

create table import_mappings (
  brand_id uuid not null,
  header text not null,
  mapping jsonb not null,
  constraint import_mappings_pkey PRIMARY KEY (brand_id, header),
  constraint import_mappings_brand_id_fkey FOREIGN KEY (brand_id) REFERENCES brands(id)
);

create table imports (
  id uuid not null,
  brand_id uuid not null,
  actor_id uuid not null,
  created_at timestamp with time zone not null,
  file text not null,
  file_name text not null,
  row_count integer not null,
  state text not null default 'waiting'::text,
  done_count integer not null default 0,
  done_line integer not null default 0,
  stop_asked boolean not null default false,
  outcome jsonb not null,
  refusal jsonb,
  ended_at timestamp with time zone,
  constraint imports_pkey PRIMARY KEY (id),
  constraint imports_actor_id_fkey FOREIGN KEY (actor_id) REFERENCES people(id),
  constraint imports_brand_id_fkey FOREIGN KEY (brand_id) REFERENCES brands(id),
  constraint imports_state_check CHECK ((state = ANY (ARRAY['waiting'::text, 'checking'::text, 'writing'::text, 'done'::text, 'refused'::text, 'stopped'::text])))
);
CREATE INDEX imports_by_brand ON public.imports USING btree (brand_id, created_at DESC);

create table jobs (
  id uuid not null,
  kind text not null,
  subject text not null default ''::text,
  due_at timestamp with time zone not null,
  tries integer not null default 0,
  result text not null default ''::text,
  last_run_at timestamp with time zone,
  holder_id uuid,
  constraint jobs_one_each UNIQUE (kind, subject),
  constraint jobs_pkey PRIMARY KEY (id)
);
CREATE INDEX jobs_due ON public.jobs USING btree (due_at);

create table known_dates (
  id bigint not null generated always as identity,
  brand_id uuid not null,
  file_id uuid not null,
  title text not null,
  from_date date not null,
  to_date date not null,
  at_time time(0) without time zone,
  constraint known_dates_pkey PRIMARY KEY (id),
  constraint known_dates_brand_id_fkey FOREIGN KEY (brand_id) REFERENCES brands(id),
  constraint known_dates_file_id_fkey FOREIGN KEY (file_id) REFERENCES date_files(id) ON DELETE CASCADE
);
CREATE INDEX known_dates_by_day ON public.known_dates USING btree (brand_id, from_date, to_date);

create table library_files (
  brand_id uuid not null,
  sha256 text not null,
  mime text not null,
  width integer not null,
  height integer not null,
  duration_ms integer,
  bytes bigint not null,
  file_name text not null,
  added_at timestamp with time zone not null,
  search tsvector generated always as (search_of(translate(file_name, '-_.'::text, '   '::text))) stored,
  constraint library_files_pkey PRIMARY KEY (brand_id, sha256),
  constraint library_files_brand_id_fkey FOREIGN KEY (brand_id) REFERENCES brands(id),
  constraint library_files_sha256_hex CHECK ((sha256 ~ '^[0-9a-f]{64}$'::text))
);
CREATE INDEX library_files_by_age ON public.library_files USING btree (brand_id, added_at DESC, sha256);
CREATE INDEX library_files_by_content ON public.library_files USING btree (sha256);
CREATE INDEX library_files_by_words ON public.library_files USING gin (search);

create table media (
  id uuid not null,
  brand_id uuid not null,
  post_id uuid not null,
  position integer not null,
  sha256 text not null,
  mime text not null,
  width integer not null,
  height integer not null,
  bytes bigint not null,
  file_name text not null,
  alt text not null default ''::text,
  added_at timestamp with time zone not null,
  crop jsonb,
  to_mime text,
  to_bytes bigint,
  duration_ms integer,
  recipe text not null generated always as (((((COALESCE((crop)::text, ''::text) || '|'::text) || COALESCE(to_mime, ''::text)) || '|'::text) || COALESCE((to_bytes)::text, ''::text))) stored,
  card jsonb,
  constraint media_pkey PRIMARY KEY (id),
  constraint media_post_of_brand FOREIGN KEY (brand_id, post_id) REFERENCES posts(brand_id, id),
  constraint media_duration_positive CHECK ((duration_ms > 0)),
  constraint media_sha256_hex CHECK ((sha256 ~ '^[0-9a-f]{64}$'::text)),
  constraint media_to_bytes_positive CHECK ((to_bytes > 0)),
  constraint media_to_mime_known CHECK ((to_mime = ANY (ARRAY['image/jpeg'::text, 'image/png'::text, 'image/webp'::text])))
);
CREATE INDEX media_by_content ON public.media USING btree (sha256);
CREATE INDEX media_by_post ON public.media USING btree (post_id, "position");
CREATE INDEX media_by_words ON public.media USING gin (search_of(alt));
CREATE INDEX media_of_brand ON public.media USING btree (brand_id, sha256);

create table names (
  id uuid not null,
  brand_id uuid not null,
  kind text not null,
  name text not null,
  handles jsonb not null default '{}'::jsonb,
  deleted_at timestamp with time zone,
  version integer not null default 1,
  constraint names_pkey PRIMARY KEY (id),
  constraint names_brand_id_fkey FOREIGN KEY (brand_id) REFERENCES brands(id),
  constraint names_kind_known CHECK ((kind = ANY (ARRAY['person'::text, 'place'::text])))
);
CREATE INDEX names_by_brand ON public.names USING btree (brand_id, name) WHERE (deleted_at IS NULL);

create table notices (
  id uuid not null,
  brand_id uuid not null,
  person_id uuid not null,
  post_id uuid not null,
  kind text not null,
  occasion text not null,
  due_at timestamp with time zone not null,
  made_at timestamp with time zone not null,
  read_at timestamp with time zone,
  mail_due_at timestamp with time zone,
  mailed_at timestamp with time zone,
  mail_tries integer not null default 0,
  mail_problem text not null default ''::text,
  constraint notices_once UNIQUE (post_id, kind, occasion, person_id),
  constraint notices_pkey PRIMARY KEY (id),
  constraint notices_brand_id_fkey FOREIGN KEY (brand_id) REFERENCES brands(id),
  constraint notices_person_id_fkey FOREIGN KEY (person_id) REFERENCES people(id),
  constraint notices_post_of_brand FOREIGN KEY (brand_id, post_id) REFERENCES posts(brand_id, id),
  constraint notices_kind_known CHECK ((kind = ANY (ARRAY['dueByHand'::text, 'notSent'::text, 'unsure'::text, 'held'::text, 'takeDown'::text])))
);
CREATE INDEX notices_of_person ON public.notices USING btree (person_id, made_at DESC);
CREATE INDEX notices_to_mail ON public.notices USING btree (mail_due_at) WHERE (mail_due_at IS NOT NULL);

create table people (
  id uuid not null,
  slug text not null,
  name text not null,
  role text not null,
  position integer not null default 0,
  archived_at timestamp with time zone,
  zone text not null default 'UTC'::text,
  weekdays smallint[] not null default '{1,2,3,4,5}'::smallint[],
  minutes_per_day integer not null default 360,
  color text not null default '#5C6470'::text,
  crafts text[] not null default '{}'::text[],
  mail_address text not null default ''::text,
  quiet_from time(0) without time zone,
  quiet_to time(0) without time zone,
  constraint people_slug_unique UNIQUE (slug),
  constraint people_pkey PRIMARY KEY (id),
  constraint people_color_hex CHECK ((color ~ '^#[0-9A-Fa-f]{6}$'::text)),
  constraint people_minutes_known CHECK (((minutes_per_day >= 0) AND (minutes_per_day <= 1440))),
  constraint people_quiet_whole CHECK (((quiet_from IS NULL) = (quiet_to IS NULL))),
  constraint people_role_known CHECK ((role = ANY (ARRAY['manager'::text, 'maker'::text, 'reviewer'::text])))
);

create table people_days_off (
  id uuid not null,
  person_id uuid not null,
  name text not null default ''::text,
  from_date date not null,
  to_date date not null,
  constraint people_days_off_pkey PRIMARY KEY (id),
  constraint people_days_off_person_id_fkey FOREIGN KEY (person_id) REFERENCES people(id),
  constraint people_days_off_in_order CHECK ((to_date >= from_date))
);
CREATE INDEX people_days_off_by_person ON public.people_days_off USING btree (person_id, from_date);

create table piece_media (
  id uuid not null,
  brand_id uuid not null,
  piece_id uuid not null,
  position integer not null,
  sha256 text not null,
  mime text not null,
  width integer not null,
  height integer not null,
  duration_ms integer,
  bytes bigint not null,
  file_name text not null,
  alt text not null default ''::text,
  added_at timestamp with time zone not null,
  constraint piece_media_pkey PRIMARY KEY (id),
  constraint piece_media_piece_of_brand FOREIGN KEY (brand_id, piece_id) REFERENCES pieces(brand_id, id)
);
CREATE INDEX piece_media_by_content ON public.piece_media USING btree (sha256);
CREATE INDEX piece_media_by_piece ON public.piece_media USING btree (piece_id, "position");

create table piece_suggestions (
  brand_id uuid not null,
  piece_id uuid not null,
  channel_id uuid not null,
  constraint piece_suggestions_pkey PRIMARY KEY (piece_id, channel_id),
  constraint suggestions_channel_of_brand FOREIGN KEY (brand_id, channel_id) REFERENCES channels(brand_id, id),
  constraint suggestions_piece_of_brand FOREIGN KEY (brand_id, piece_id) REFERENCES pieces(brand_id, id)
);
CREATE INDEX suggestions_by_brand ON public.piece_suggestions USING btree (brand_id);

create table piece_uses (
  piece_id uuid not null,
  brand_id uuid not null,
  made_at timestamp with time zone not null,
  is_shown boolean not null,
  live integer not null,
  engagement bigint not null,
  constraint piece_uses_pkey PRIMARY KEY (piece_id),
  constraint piece_uses_brand_id_fkey FOREIGN KEY (brand_id) REFERENCES brands(id),
  constraint piece_uses_piece_id_fkey FOREIGN KEY (piece_id) REFERENCES pieces(id) ON DELETE CASCADE
);
CREATE INDEX piece_uses_best ON public.piece_uses USING btree (brand_id, engagement DESC, made_at DESC, piece_id) WHERE is_shown;
CREATE INDEX piece_uses_least ON public.piece_uses USING btree (brand_id, live, made_at DESC, piece_id) WHERE is_shown;
CREATE INDEX piece_uses_newest ON public.piece_uses USING btree (brand_id, made_at DESC, piece_id) WHERE is_shown;

create table pieces (
  id uuid not null,
  brand_id uuid not null,
  title text not null,
  note text not null default ''::text,
  link text not null default ''::text,
  source_text text not null default ''::text,
  owner_id uuid not null,
  created_at timestamp with time zone not null,
  created_by uuid not null,
  set_aside_at timestamp with time zone,
  set_aside_reason text not null default ''::text,
  deleted_at timestamp with time zone,
  version integer not null default 1,
  kind text not null default 'message'::text,
  prep_day date,
  cues jsonb not null default '[]'::jsonb,
  is_word_timed boolean not null default false,
  typed_at timestamp with time zone,
  search tsvector generated always as (search_of(((((((title || ' '::text) || search_address(link)) || ' '::text) || "left"(note, 20000)) || ' '::text) || "left"(source_text, 40000)))) stored,
  how_read jsonb default '{"as": null, "taken": [], "leftOut": []}'::jsonb,
  constraint pieces_of_brand UNIQUE (brand_id, id),
  constraint pieces_pkey PRIMARY KEY (id),
  constraint pieces_brand_id_fkey FOREIGN KEY (brand_id) REFERENCES brands(id),
  constraint pieces_created_by_fkey FOREIGN KEY (created_by) REFERENCES people(id),
  constraint pieces_owner_id_fkey FOREIGN KEY (owner_id) REFERENCES people(id),
  constraint pieces_kind_known CHECK ((kind = ANY (ARRAY['message'::text, 'talk'::text, 'article'::text, 'episode'::text, 'photoSet'::text])))
);
CREATE INDEX pieces_by_brand ON public.pieces USING btree (brand_id, created_at DESC, id) WHERE (deleted_at IS NULL);
CREATE INDEX pieces_by_words ON public.pieces USING gin (search) WHERE (deleted_at IS NULL);
CREATE TRIGGER piece_says_other AFTER UPDATE OF title, link, source_text ON public.pieces FOR EACH ROW WHEN ((((old.title IS DISTINCT FROM new.title) OR (old.link IS DISTINCT FROM new.link)) OR (old.source_text IS DISTINCT FROM new.source_text))) EXECUTE FUNCTION keep_former_text();
CREATE TRIGGER pieces_added AFTER INSERT ON public.pieces REFERENCING NEW TABLE AS changed FOR EACH STATEMENT EXECUTE FUNCTION recount_uses_of_new_pieces();
CREATE TRIGGER pieces_changed AFTER UPDATE ON public.pieces REFERENCING OLD TABLE AS former NEW TABLE AS changed FOR EACH STATEMENT EXECUTE FUNCTION recount_uses_of_changed_pieces();

create table pillars (
  id uuid not null,
  brand_id uuid not null,
  name text not null,
  color text not null,
  position integer not null default 0,
  archived_at timestamp with time zone,
  constraint pillars_name_unique UNIQUE (brand_id, name),
  constraint pillars_of_brand UNIQUE (brand_id, id),
  constraint pillars_pkey PRIMARY KEY (id),
  constraint pillars_brand_id_fkey FOREIGN KEY (brand_id) REFERENCES brands(id),
  constraint pillars_color_hex CHECK ((color ~ '^#[0-9A-Fa-f]{6}$'::text))
);

create table post_extracts (
  post_id uuid not null,
  extract_id uuid not null,
  constraint post_extracts_pkey PRIMARY KEY (post_id, extract_id),
  constraint post_extracts_extract_id_fkey FOREIGN KEY (extract_id) REFERENCES extracts(id) ON DELETE CASCADE,
  constraint post_extracts_post_id_fkey FOREIGN KEY (post_id) REFERENCES posts(id)
);
CREATE INDEX post_extracts_by_extract ON public.post_extracts USING btree (extract_id);

create table post_versions (
  id uuid not null,
  post_id uuid not null,
  person_id uuid not null,
  at timestamp with time zone not null,
  words jsonb not null,
  number bigint not null generated always as identity,
  constraint post_versions_pkey PRIMARY KEY (id),
  constraint post_versions_person_id_fkey FOREIGN KEY (person_id) REFERENCES people(id),
  constraint post_versions_post_id_fkey FOREIGN KEY (post_id) REFERENCES posts(id)
);
CREATE INDEX post_versions_by_post ON public.post_versions USING btree (post_id, number DESC);

create table posts (
  id uuid not null,
  brand_id uuid not null,
  piece_id uuid not null,
  channel_id uuid not null,
  format text not null,
  title text not null,
  headline text not null default ''::text,
  caption text not null default ''::text,
  hashtags text not null default ''::text,
  link text not null default ''::text,
  plan_date date,
  plan_time time(0) without time zone,
  stage text not null,
  stage_before text,
  set_aside_reason text not null default ''::text,
  owner_id uuid not null,
  created_at timestamp with time zone not null,
  created_by uuid not null,
  published_at timestamp with time zone,
  address text not null default ''::text,
  archived_at timestamp with time zone,
  deleted_at timestamp with time zone,
  version integer not null default 1,
  pillar_id uuid,
  campaign_id uuid,
  repeat_id uuid,
  repeat_number integer,
  waived jsonb not null default '[]'::jsonb,
  preheader text not null default ''::text,
  keywords text not null default ''::text,
  first_comment text not null default ''::text,
  script text not null default ''::text,
  cover_ideas text not null default ''::text,
  agenda text not null default ''::text,
  parts jsonb not null default '[]'::jsonb,
  signed_off jsonb,
  not_sent jsonb,
  drafted jsonb not null default '[]'::jsonb,
  encore_of uuid,
  lasting text not null default ''::text,
  search tsvector generated always as (search_of("left"(((((((((((((((((((((((title || ' '::text) || headline) || ' '::text) || preheader) || ' '::text) || search_address(link)) || ' '::text) || hashtags) || ' '::text) || keywords) || ' '::text) || "left"(caption, 20000)) || ' '::text) || "left"(first_comment, 5000)) || ' '::text) || "left"(search_parts(parts), 20000)) || ' '::text) || "left"(script, 20000)) || ' '::text) || "left"(cover_ideas, 5000)) || ' '::text) || "left"(agenda, 5000)), 60000))) stored,
  rate double precision,
  made_of uuid,
  plan_until time(0) without time zone,
  window_from time(0) without time zone,
  constraint posts_of_brand UNIQUE (brand_id, id),
  constraint posts_pkey PRIMARY KEY (id),
  constraint posts_brand_id_fkey FOREIGN KEY (brand_id) REFERENCES brands(id),
  constraint posts_campaign_of_brand FOREIGN KEY (brand_id, campaign_id) REFERENCES campaigns(brand_id, id),
  constraint posts_channel_of_brand FOREIGN KEY (brand_id, channel_id) REFERENCES channels(brand_id, id),
  constraint posts_created_by_fkey FOREIGN KEY (created_by) REFERENCES people(id),
  constraint posts_encore_of_fkey FOREIGN KEY (encore_of) REFERENCES posts(id),
  constraint posts_made_of_fkey FOREIGN KEY (made_of) REFERENCES former_texts(id),
  constraint posts_owner_id_fkey FOREIGN KEY (owner_id) REFERENCES people(id),
  constraint posts_piece_of_brand FOREIGN KEY (brand_id, piece_id) REFERENCES pieces(brand_id, id),
  constraint posts_pillar_of_brand FOREIGN KEY (brand_id, pillar_id) REFERENCES pillars(brand_id, id),
  constraint posts_repeat_of_brand FOREIGN KEY (brand_id, repeat_id) REFERENCES repeats(brand_id, id),
  constraint posts_lasting_known CHECK ((lasting = ANY (ARRAY[''::text, 'dated'::text]))),
  constraint posts_repeat_numbered CHECK (((repeat_id IS NULL) = (repeat_number IS NULL))),
  constraint posts_stage_known CHECK ((stage = ANY (ARRAY['drafting'::text, 'production'::text, 'signOff'::text, 'ready'::text, 'scheduled'::text, 'published'::text, 'setAside'::text]))),
  constraint posts_time_needs_date CHECK (((plan_time IS NULL) OR (plan_date IS NOT NULL)))
);
CREATE INDEX posts_by_channel ON public.posts USING btree (channel_id, plan_date) WHERE (deleted_at IS NULL);
CREATE INDEX posts_by_day ON public.posts USING btree (brand_id, plan_date) WHERE ((deleted_at IS NULL) AND (archived_at IS NULL));
CREATE INDEX posts_by_encore ON public.posts USING btree (encore_of) WHERE ((encore_of IS NOT NULL) AND (deleted_at IS NULL));
CREATE INDEX posts_by_piece ON public.posts USING btree (piece_id) WHERE (deleted_at IS NULL);
CREATE INDEX posts_by_stage ON public.posts USING btree (brand_id, stage, plan_date) WHERE ((deleted_at IS NULL) AND (archived_at IS NULL));
CREATE INDEX posts_by_words ON public.posts USING gin (search) WHERE (deleted_at IS NULL);
CREATE INDEX posts_deleted ON public.posts USING btree (brand_id, deleted_at) WHERE (deleted_at IS NOT NULL);
CREATE INDEX posts_made_of ON public.posts USING btree (piece_id) WHERE (made_of IS NOT NULL);
CREATE INDEX posts_out_by_rate ON public.posts USING btree (channel_id, format, rate) WHERE ((stage = 'published'::text) AND (deleted_at IS NULL) AND (rate IS NOT NULL));
CREATE INDEX posts_out_by_time ON public.posts USING btree (brand_id, published_at) WHERE ((stage = 'published'::text) AND (deleted_at IS NULL));
CREATE INDEX posts_out_evergreen ON public.posts USING btree (brand_id) WHERE ((stage = 'published'::text) AND (deleted_at IS NULL) AND (lasting = 'evergreen'::text));
CREATE INDEX posts_out_unrated ON public.posts USING btree (brand_id, published_at) WHERE ((stage = 'published'::text) AND (deleted_at IS NULL) AND (rate IS NULL));
CREATE UNIQUE INDEX posts_repeat_number ON public.posts USING btree (repeat_id, repeat_number) WHERE ((repeat_id IS NOT NULL) AND (deleted_at IS NULL));
CREATE INDEX posts_scheduled ON public.posts USING btree (brand_id, plan_date) WHERE ((stage = 'scheduled'::text) AND (deleted_at IS NULL));
CREATE INDEX posts_undated ON public.posts USING btree (brand_id, created_at DESC) WHERE ((plan_date IS NULL) AND (deleted_at IS NULL) AND (archived_at IS NULL) AND (stage <> 'setAside'::text));
CREATE TRIGGER posts_added AFTER INSERT ON public.posts REFERENCING NEW TABLE AS changed FOR EACH STATEMENT EXECUTE FUNCTION recount_uses_of_new_posts();
CREATE TRIGGER posts_changed AFTER UPDATE ON public.posts REFERENCING OLD TABLE AS former NEW TABLE AS changed FOR EACH STATEMENT EXECUTE FUNCTION recount_uses_of_changed_posts();

create table prep_lines (
  brand_id uuid not null,
  subject text not null,
  position integer not null,
  title text not null,
  work text not null,
  owner_id uuid,
  craft text,
  lead integer not null,
  lead_in text not null,
  minutes integer,
  note text not null default ''::text,
  needed boolean not null default false,
  ticks_itself boolean not null default false,
  constraint prep_lines_pkey PRIMARY KEY (brand_id, subject, "position"),
  constraint prep_lines_of_sheet FOREIGN KEY (brand_id, subject) REFERENCES prep_sheets(brand_id, subject),
  constraint prep_lines_owner_id_fkey FOREIGN KEY (owner_id) REFERENCES people(id)
);

create table prep_sheets (
  brand_id uuid not null,
  subject text not null,
  constraint prep_sheets_pkey PRIMARY KEY (brand_id, subject),
  constraint prep_sheets_brand_id_fkey FOREIGN KEY (brand_id) REFERENCES brands(id)
);

create table proposals (
  id uuid not null,
  brand_id uuid not null,
  piece_id uuid not null,
  owner_id uuid not null,
  channel_id uuid not null,
  format text not null,
  fan_out text not null,
  place integer not null,
  offset_days integer not null,
  gap_days integer not null,
  made_from jsonb not null,
  draft jsonb not null,
  card jsonb,
  made_at timestamp with time zone not null,
  state text not null default 'waiting'::text,
  decided_at timestamp with time zone,
  post_id uuid,
  constraint proposals_pkey PRIMARY KEY (id),
  constraint proposals_brand_id_fkey FOREIGN KEY (brand_id) REFERENCES brands(id),
  constraint proposals_channel_id_fkey FOREIGN KEY (channel_id) REFERENCES channels(id),
  constraint proposals_owner_id_fkey FOREIGN KEY (owner_id) REFERENCES people(id),
  constraint proposals_piece_id_fkey FOREIGN KEY (piece_id) REFERENCES pieces(id),
  constraint proposals_post_id_fkey FOREIGN KEY (post_id) REFERENCES posts(id),
  constraint proposals_state_known CHECK ((state = ANY (ARRAY['waiting'::text, 'kept'::text, 'thrownAway'::text])))
);
CREATE INDEX proposals_by_piece ON public.proposals USING btree (piece_id);
CREATE INDEX proposals_waiting ON public.proposals USING btree (owner_id, brand_id, made_at DESC) WHERE (state = 'waiting'::text);

create table read_texts (
  piece_id uuid not null,
  of_text text not null,
  reading jsonb not null,
  constraint read_texts_pkey PRIMARY KEY (piece_id),
  constraint read_texts_piece FOREIGN KEY (piece_id) REFERENCES pieces(id) ON DELETE CASCADE
);

create table readings (
  post_id uuid not null,
  read_at timestamp with time zone not null,
  reach integer,
  views integer,
  likes integer,
  comments integer,
  shares integer,
  saves integer,
  clicks integer,
  follows integer,
  watch_seconds bigint,
  constraint readings_pkey PRIMARY KEY (post_id, read_at),
  constraint readings_post_id_fkey FOREIGN KEY (post_id) REFERENCES posts(id),
  constraint readings_clicks_known CHECK ((clicks >= 0)),
  constraint readings_comments_known CHECK ((comments >= 0)),
  constraint readings_follows_known CHECK ((follows >= 0)),
  constraint readings_likes_known CHECK ((likes >= 0)),
  constraint readings_reach_known CHECK ((reach >= 0)),
  constraint readings_saves_known CHECK ((saves >= 0)),
  constraint readings_shares_known CHECK ((shares >= 0)),
  constraint readings_views_known CHECK ((views >= 0)),
  constraint readings_watch_seconds_known CHECK ((watch_seconds >= 0))
);
CREATE TRIGGER readings_added AFTER INSERT ON public.readings REFERENCING NEW TABLE AS changed FOR EACH STATEMENT EXECUTE FUNCTION recount_uses_of_read_posts();
CREATE TRIGGER readings_added_rate AFTER INSERT ON public.readings REFERENCING NEW TABLE AS changed FOR EACH STATEMENT EXECUTE FUNCTION rate_read_posts();
CREATE TRIGGER readings_changed AFTER UPDATE ON public.readings REFERENCING NEW TABLE AS changed FOR EACH STATEMENT EXECUTE FUNCTION recount_uses_of_read_posts();
CREATE TRIGGER readings_changed_rate AFTER UPDATE ON public.readings REFERENCING NEW TABLE AS changed FOR EACH STATEMENT EXECUTE FUNCTION rate_read_posts();
CREATE TRIGGER readings_removed AFTER DELETE ON public.readings REFERENCING OLD TABLE AS changed FOR EACH STATEMENT EXECUTE FUNCTION recount_uses_of_read_posts();
CREATE TRIGGER readings_removed_rate AFTER DELETE ON public.readings REFERENCING OLD TABLE AS changed FOR EACH STATEMENT EXECUTE FUNCTION rate_read_posts();

create table renditions (
  sha256 text not null,
  recipe text not null,
  mime text not null,
  width integer not null,
  height integer not null,
  bytes bigint not null,
  constraint renditions_pkey PRIMARY KEY (sha256, recipe),
  constraint renditions_sha256_hex CHECK ((sha256 ~ '^[0-9a-f]{64}$'::text))
);

create table repeats (
  id uuid not null,
  brand_id uuid not null,
  piece_id uuid not null,
  channel_id uuid not null,
  name text not null,
  format text not null,
  rule jsonb not null,
  at_time time(0) without time zone not null,
  from_date date not null,
  to_date date,
  ahead integer not null default 4,
  next_number integer not null default 1,
  owner_id uuid not null,
  ended_at timestamp with time zone,
  last_round date,
  kind text not null default 'series'::text,
  times integer,
  first_number integer not null default 1,
  days_before smallint not null default 0,
  work_days smallint,
  constraint repeats_of_brand UNIQUE (brand_id, id),
  constraint repeats_pkey PRIMARY KEY (id),
  constraint repeats_brand_id_fkey FOREIGN KEY (brand_id) REFERENCES brands(id),
  constraint repeats_channel_of_brand FOREIGN KEY (brand_id, channel_id) REFERENCES channels(brand_id, id),
  constraint repeats_owner_id_fkey FOREIGN KEY (owner_id) REFERENCES people(id),
  constraint repeats_piece_of_brand FOREIGN KEY (brand_id, piece_id) REFERENCES pieces(brand_id, id),
  constraint repeats_ahead_known CHECK (((ahead >= 1) AND (ahead <= 26))),
  constraint repeats_days_before_known CHECK (((days_before >= 0) AND (days_before <= 60))),
  constraint repeats_kind_known CHECK ((kind = ANY (ARRAY['series'::text, 'evergreen'::text, 'seasonal'::text]))),
  constraint repeats_seasonal_work CHECK (((kind = 'seasonal'::text) = (work_days IS NOT NULL))),
  constraint repeats_times_known CHECK (((times >= 1) AND (times <= 1000))),
  constraint repeats_work_days_known CHECK (((work_days >= 30) AND (work_days <= 90)))
);

create table restores (
  id uuid not null,
  brand_id uuid not null,
  found_at timestamp with time zone not null,
  restored_to timestamp with time zone,
  signs text[] not null,
  taken_over integer not null default 0,
  released_at timestamp with time zone,
  released_by uuid,
  constraint restores_pkey PRIMARY KEY (id),
  constraint restores_of_brand FOREIGN KEY (brand_id) REFERENCES brands(id),
  constraint restores_released_by_person FOREIGN KEY (released_by) REFERENCES people(id)
);
CREATE UNIQUE INDEX restores_one_open ON public.restores USING btree (brand_id) WHERE (released_at IS NULL);

create table rhythm_entries (
  id uuid not null,
  brand_id uuid not null,
  channel_id uuid not null,
  position integer not null,
  recurrence jsonb not null,
  at_time time(0) without time zone not null,
  format text,
  theme text not null default ''::text,
  pillar_id uuid,
  from_date date,
  to_date date,
  until_time time(0) without time zone,
  constraint rhythm_entries_pkey PRIMARY KEY (id),
  constraint rhythm_channel_of_brand FOREIGN KEY (brand_id, channel_id) REFERENCES channels(brand_id, id),
  constraint rhythm_pillar_of_brand FOREIGN KEY (brand_id, pillar_id) REFERENCES pillars(brand_id, id),
  constraint rhythm_entries_window CHECK ((until_time > at_time))
);
CREATE INDEX rhythm_by_brand ON public.rhythm_entries USING btree (brand_id, channel_id, "position");

create table rhythm_pauses (
  id uuid not null,
  brand_id uuid not null,
  channel_id uuid not null,
  name text not null default ''::text,
  from_date date not null,
  to_date date not null,
  constraint rhythm_pauses_pkey PRIMARY KEY (id),
  constraint pauses_channel_of_brand FOREIGN KEY (brand_id, channel_id) REFERENCES channels(brand_id, id),
  constraint pauses_in_order CHECK ((to_date >= from_date))
);
CREATE INDEX pauses_by_brand ON public.rhythm_pauses USING btree (brand_id, channel_id);

create table rule_sheets (
  id uuid not null,
  slug text not null,
  name text not null,
  rules jsonb not null,
  constraint rule_sheets_slug_unique UNIQUE (slug),
  constraint rule_sheets_pkey PRIMARY KEY (id)
);

create table saved_views (
  id uuid not null,
  brand_id uuid not null,
  owner_id uuid not null,
  name text not null,
  shared boolean not null default false,
  address text not null,
  constraint saved_views_name_unique UNIQUE (brand_id, owner_id, name),
  constraint saved_views_pkey PRIMARY KEY (id),
  constraint readings_brand_id_fkey FOREIGN KEY (brand_id) REFERENCES brands(id),
  constraint readings_owner_id_fkey FOREIGN KEY (owner_id) REFERENCES people(id)
);

create table schema_history (
  number integer not null,
  name text not null,
  checksum text not null,
  applied_at timestamp with time zone not null default now(),
  constraint schema_history_pkey PRIMARY KEY (number)
);

create table setting_versions (
  setting text not null,
  key text not null,
  version integer not null,
  constraint setting_versions_pkey PRIMARY KEY (setting, key)
);

create table shelf_items (
  id uuid not null,
  brand_id uuid not null,
  kind text not null,
  title text not null,
  text text not null,
  source text not null default ''::text,
  created_at timestamp with time zone not null,
  deleted_at timestamp with time zone,
  version integer not null default 1,
  fits jsonb not null default '{}'::jsonb,
  constraint shelf_items_pkey PRIMARY KEY (id),
  constraint shelf_items_brand_id_fkey FOREIGN KEY (brand_id) REFERENCES brands(id),
  constraint shelf_items_kind_known CHECK ((kind = ANY (ARRAY['hashtags'::text, 'callToAction'::text, 'link'::text, 'quote'::text, 'reply'::text])))
);
CREATE INDEX shelf_items_by_brand ON public.shelf_items USING btree (brand_id, kind, title) WHERE (deleted_at IS NULL);

create table shelf_uses (
  item_id uuid not null,
  post_id uuid not null,
  at timestamp with time zone not null,
  constraint shelf_uses_pkey PRIMARY KEY (item_id, post_id),
  constraint shelf_uses_item_id_fkey FOREIGN KEY (item_id) REFERENCES shelf_items(id),
  constraint shelf_uses_post_id_fkey FOREIGN KEY (post_id) REFERENCES posts(id)
);

create table sign_ins (
  id uuid not null,
  person_id uuid not null,
  begun_at timestamp with time zone not null,
  last_at timestamp with time zone not null,
  address text not null,
  agent text not null,
  constraint sign_ins_pkey PRIMARY KEY (id),
  constraint sign_ins_person_id_fkey FOREIGN KEY (person_id) REFERENCES people(id) ON DELETE CASCADE
);
CREATE INDEX sign_ins_by_person ON public.sign_ins USING btree (person_id);

create table steps (
  id uuid not null,
  brand_id uuid not null,
  post_id uuid,
  position integer not null,
  title text not null,
  work text not null,
  owner_id uuid,
  craft text,
  lead integer not null,
  lead_in text not null,
  minutes integer,
  note text not null default ''::text,
  needed boolean not null default false,
  pinned date,
  day date,
  planned_on date,
  done_at timestamp with time zone,
  done_on date,
  done_by uuid,
  version integer not null default 1,
  batch_id uuid,
  batch_position integer,
  piece_id uuid,
  holder_id uuid not null generated always as (COALESCE(post_id, piece_id)) stored,
  ticks_itself boolean not null default false,
  constraint steps_pkey PRIMARY KEY (id),
  constraint steps_batch_of_brand FOREIGN KEY (brand_id, batch_id) REFERENCES batch_days(brand_id, id),
  constraint steps_done_by_fkey FOREIGN KEY (done_by) REFERENCES people(id),
  constraint steps_owner_id_fkey FOREIGN KEY (owner_id) REFERENCES people(id),
  constraint steps_piece_of_brand FOREIGN KEY (brand_id, piece_id) REFERENCES pieces(brand_id, id),
  constraint steps_post_of_brand FOREIGN KEY (brand_id, post_id) REFERENCES posts(brand_id, id),
  constraint steps_done_whole CHECK (((done_at IS NULL) = (done_on IS NULL))),
  constraint steps_lead_in_known CHECK ((lead_in = ANY (ARRAY['working'::text, 'calendar'::text]))),
  constraint steps_lead_known CHECK (((lead >= '-365'::integer) AND (lead <= 365))),
  constraint steps_of_one_holder CHECK ((num_nonnulls(post_id, piece_id) = 1)),
  constraint steps_work_known CHECK ((work = ANY (ARRAY['words'::text, 'picture'::text, 'recording'::text, 'editing'::text, 'sending'::text])))
);
CREATE INDEX steps_by_batch ON public.steps USING btree (batch_id, batch_position) WHERE (batch_id IS NOT NULL);
CREATE INDEX steps_by_holder ON public.steps USING btree (holder_id, "position");
CREATE INDEX steps_by_post ON public.steps USING btree (post_id) WHERE (post_id IS NOT NULL);
CREATE INDEX steps_open_by_day ON public.steps USING btree (brand_id, day) WHERE (done_at IS NULL);
CREATE INDEX steps_open_by_holder ON public.steps USING btree (holder_id, "position") WHERE (done_at IS NULL);
CREATE INDEX steps_open_by_owner ON public.steps USING btree (owner_id, day) WHERE (done_at IS NULL);

create table take_downs (
  post_id uuid not null,
  brand_id uuid not null,
  reason text not null,
  way text not null,
  asked_by uuid not null,
  asked_at timestamp with time zone not null,
  done_at timestamp with time zone,
  constraint take_downs_pkey PRIMARY KEY (post_id),
  constraint take_downs_asked_by_fkey FOREIGN KEY (asked_by) REFERENCES people(id),
  constraint take_downs_post_of_brand FOREIGN KEY (brand_id, post_id) REFERENCES posts(brand_id, id),
  constraint take_downs_reason_given CHECK ((reason <> ''::text)),
  constraint take_downs_way_known CHECK ((way = ANY (ARRAY['network'::text, 'byHand'::text])))
);
CREATE INDEX take_downs_of_brand ON public.take_downs USING btree (brand_id, asked_at);
CREATE INDEX take_downs_to_do ON public.take_downs USING btree (asked_at) WHERE (done_at IS NULL);

create table writing_services (
  brand_id uuid not null,
  address text not null,
  key text not null,
  constraint writing_services_pkey PRIMARY KEY (brand_id),
  constraint writing_services_brand_id_fkey FOREIGN KEY (brand_id) REFERENCES brands(id)
);

create table written_texts (
  brand_id uuid not null,
  key text not null,
  texts jsonb not null,
  written_at timestamp with time zone not null,
  constraint written_texts_pkey PRIMARY KEY (brand_id, key),
  constraint written_texts_brand_id_fkey FOREIGN KEY (brand_id) REFERENCES brands(id)
);

create table wrong_passwords (
  subject text not null,
  wrong integer not null,
  last_at timestamp with time zone not null,
  constraint wrong_passwords_pkey PRIMARY KEY (subject)
);

CREATE OR REPLACE FUNCTION public.keep_former_text()
 RETURNS trigger
 LANGUAGE plpgsql
AS $function$
declare
  former uuid;
begin
  if (old.title, old.link, old.source_text) is distinct from (new.title, new.link, '')
    and exists (select 1 from posts where piece_id = new.id and made_of is null) then
    select id into former from former_texts
      where piece_id = new.id and (title, link, source_text) = (old.title, old.link, old.source_text);
    if former is null then
      insert into former_texts (piece_id, title, link, source_text, cues, how_read)
        values (old.id, old.title, old.link, old.source_text, old.cues, old.how_read)
        returning id into former;
    end if;
    update posts set made_of = former where piece_id = new.id and made_of is null;
  end if;
  update posts set made_of = null from former_texts f
    where made_of = f.id and f.piece_id = new.id
      and (f.title, f.link, f.source_text) = (new.title, new.link, new.source_text);
  return null;
end
$function$;

CREATE OR REPLACE FUNCTION public.letter_of_extract(kind text)
 RETURNS text
 LANGUAGE sql
 IMMUTABLE
AS $function$
  select case kind when 'quote' then 'Q' when 'point' then 'P' when 'number' then 'N' when 'question' then '?'
    when 'listStep' then 'S' else 'C' end
$function$;

CREATE OR REPLACE FUNCTION public.name_extract()
 RETURNS trigger
 LANGUAGE plpgsql
AS $function$
declare
  letter text := letter_of_extract(new.kind);
begin
  if new.sign !~ '^.[1-9][0-9]{0,3}$' or left(new.sign, 1) <> letter
    or exists (select 1 from extracts where piece_id = new.piece_id and sign = new.sign) then
    new.sign := letter || (
      select coalesce(max(substr(sign, 2)::integer), 0) + 1 from extracts
      where piece_id = new.piece_id and left(sign, 1) = letter
    );
  end if;
  return new;
end
$function$;

CREATE OR REPLACE FUNCTION public.rate_posts(ids uuid[])
 RETURNS void
 LANGUAGE sql
AS $function$
  update posts p set rate = x.rate
  from (
    select i.id, coalesce(l.engagement / nullif(l.reach, 0), l.engagement / nullif(l.views, 0)) as rate
    from unnest(ids) as i (id)
    left join lateral (
      select reach::float8 as reach, views::float8 as views,
        case when num_nonnulls(likes, comments, shares, saves) > 0 then
          coalesce(likes, 0)::float8 + coalesce(comments, 0) + coalesce(shares, 0) + coalesce(saves, 0) end as engagement
      from readings where post_id = i.id order by read_at desc limit 1
    ) l on true
  ) x
  where p.id = x.id and p.rate is distinct from x.rate
$function$;

CREATE OR REPLACE FUNCTION public.rate_read_posts()
 RETURNS trigger
 LANGUAGE plpgsql
AS $function$
begin
  perform rate_posts(array(select distinct post_id from changed));
  return null;
end $function$;

CREATE OR REPLACE FUNCTION public.recount_uses(ids uuid[])
 RETURNS void
 LANGUAGE sql
AS $function$
  insert into piece_uses (piece_id, brand_id, made_at, is_shown, live, engagement)
  select g.id, g.brand_id, g.created_at,
    g.deleted_at is null and g.set_aside_at is null and (g.source_text ~ '\S' or o.posts > 0), o.live, o.engagement
  from (select unnest(ids) as id order by 1) x join pieces g on g.id = x.id
  cross join lateral (
    select count(*) as posts, count(*) filter (where p.stage <> 'setAside') as live, coalesce(sum(r.engagement), 0) as engagement
    from posts p left join lateral (
      select coalesce(likes, 0) + coalesce(comments, 0) + coalesce(shares, 0) + coalesce(saves, 0) as engagement
      from readings where post_id = p.id and p.stage = 'published' order by read_at desc limit 1
    ) r on true
    where p.piece_id = g.id and p.deleted_at is null
  ) o
  on conflict (piece_id) do update set is_shown = excluded.is_shown, live = excluded.live, engagement = excluded.engagement
$function$;

CREATE OR REPLACE FUNCTION public.recount_uses_of_changed_pieces()
 RETURNS trigger
 LANGUAGE plpgsql
AS $function$
begin
  perform recount_uses(array(
    select n.id from changed n join former o on o.id = n.id
    where (n.deleted_at is null) <> (o.deleted_at is null) or (n.set_aside_at is null) <> (o.set_aside_at is null)
      or (n.source_text ~ '\S') <> (o.source_text ~ '\S')));
  return null;
end $function$;

CREATE OR REPLACE FUNCTION public.recount_uses_of_changed_posts()
 RETURNS trigger
 LANGUAGE plpgsql
AS $function$
begin
  perform recount_uses(array(
    select distinct unnest(array[n.piece_id, o.piece_id]) from changed n join former o on o.id = n.id
    where n.piece_id <> o.piece_id or n.stage <> o.stage or (n.deleted_at is null) <> (o.deleted_at is null)));
  return null;
end $function$;

CREATE OR REPLACE FUNCTION public.recount_uses_of_new_pieces()
 RETURNS trigger
 LANGUAGE plpgsql
AS $function$
begin
  perform recount_uses(array(select id from changed));
  return null;
end $function$;

CREATE OR REPLACE FUNCTION public.recount_uses_of_new_posts()
 RETURNS trigger
 LANGUAGE plpgsql
AS $function$
begin
  perform recount_uses(array(select distinct piece_id from changed));
  return null;
end $function$;

CREATE OR REPLACE FUNCTION public.recount_uses_of_read_posts()
 RETURNS trigger
 LANGUAGE plpgsql
AS $function$
begin
  perform recount_uses(array(select distinct p.piece_id from changed c join posts p on p.id = c.post_id));
  return null;
end $function$;

CREATE OR REPLACE FUNCTION public.search_address(address text)
 RETURNS text
 LANGUAGE sql
 IMMUTABLE PARALLEL SAFE STRICT
AS $function$
  select translate(address, '/.:?&=#-_', '         ')
$function$;

CREATE OR REPLACE FUNCTION public.search_grams(content text)
 RETURNS text[]
 LANGUAGE sql
 IMMUTABLE PARALLEL SAFE STRICT
AS $function$
  select coalesce(array_agg(distinct gram), '{}')
  from (
    select letter, letter || lead(letter) over (partition by run_number order by place) as pair
    from regexp_matches(lower(normalize(content, NFC)),
        '[\u0590-\u1cff\u3005-\u3007\u3040-\ud7af\uf900-\ufdff\ufe70-\ufefe\U00020000-\U0003ffff]+', 'g')
        with ordinality as runs (found, run_number),
      unnest(string_to_array(found[1], null)) with ordinality as letters (letter, place)
  ) grams, unnest(array[letter, pair]) gram
  where gram is not null
$function$;

CREATE OR REPLACE FUNCTION public.search_of(content text)
 RETURNS tsvector
 LANGUAGE sql
 IMMUTABLE PARALLEL SAFE STRICT
AS $function$
  select to_tsvector('simple', regexp_replace(normalize(content, NFC),
      '([\u0590-\u1cff\u3005-\u3007\u3040-\ud7af\uf900-\ufdff\ufe70-\ufefe\U00020000-\U0003ffff]+)', ' ', 'g'))
    || array_to_tsvector(public.search_grams(content))
$function$;

CREATE OR REPLACE FUNCTION public.search_parts(parts jsonb)
 RETURNS text
 LANGUAGE sql
 IMMUTABLE PARALLEL SAFE STRICT
AS $function$
  select coalesce(string_agg(text #>> '{}', ' '), '') from jsonb_path_query(parts, '$[*].text') text
$function$;
