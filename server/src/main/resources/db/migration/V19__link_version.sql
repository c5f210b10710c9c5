-- A vantage point of another version is turned away; the page says so.
alter table vantage add column link_version integer;
