-- How a piece's text is read, beside the text: as Markdown or as plain text, what was left out of it when it was brought in, and
-- what is taken in after all. Null for a text that was brought in before this was kept: it is settled when Bimlo starts.
alter table pieces add column how_read jsonb;
alter table pieces alter column how_read set default '{"as": null, "taken": [], "leftOut": []}';
update pieces set how_read = default where source_text !~ '\S';
