-- Logs that machines keep themselves, fetched when a step failed.
create table machine_log (
    id      bigint generated always as identity primary key,
    unit_id bigint not null references unit on delete cascade,
    member  text not null,
    text    text not null check (length(text) between 1 and 250000),
    at      timestamptz not null
);
create index machine_log_unit on machine_log (unit_id, id);
