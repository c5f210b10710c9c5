-- units: what was ticked at the rack
create table rack_tick (
    unit_id  bigint not null references unit on delete cascade,
    member   text not null,
    text     text not null check (length(text) between 1 and 80),
    by_login text not null,
    at       timestamptz not null,
    primary key (unit_id, member, text)
);
