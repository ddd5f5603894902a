-- What a piece is; its own prep, if it has any, counts back from `prep_day`, or else from its earliest post.
alter table pieces
  add column kind text not null default 'message'
    constraint pieces_kind_known check (kind in ('message', 'talk', 'article', 'episode', 'photoSet')),
  add column prep_day date;

-- A step belongs to a post or to a piece: its holder.
alter table steps
  alter column post_id drop not null,
  add column piece_id uuid,
  add constraint steps_piece_of_brand foreign key (brand_id, piece_id) references pieces (brand_id, id),
  add constraint steps_of_one_holder check (num_nonnulls(post_id, piece_id) = 1);
alter table steps add column holder_id uuid not null generated always as (coalesce(post_id, piece_id)) stored;
create index steps_by_holder on steps (holder_id, position);
drop index steps_by_post;
create index steps_by_post on steps (post_id) where post_id is not null;

-- Prep sheets belong to formats, and to kinds of pieces ('piece:talk').
alter table prep_lines rename column format to subject;
alter table prep_sheets rename column format to subject;
