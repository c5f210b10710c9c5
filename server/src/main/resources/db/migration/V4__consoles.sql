-- Setup dialogues on console lines: one a member, each step with its answer and evidence before the next one is sent.

-- A unit has a password under each name that its kind makes one for.
alter table sealed_secret add column name text not null default 'password' check (name ~ '^[a-z][a-z0-9-]{0,39}$');
drop index sealed_secret_made;
drop index sealed_secret_proven;
create unique index sealed_secret_made on sealed_secret (unit_id, name) where state = 'made';
create unique index sealed_secret_proven on sealed_secret (unit_id, name) where state = 'proven';

alter table run drop constraint run_purpose_check;
alter table run add constraint run_purpose_check check (purpose in ('configure', 'prove', 'console'));

alter table thing drop constraint thing_sort_check;
alter table thing add constraint thing_sort_check check (sort in ('room', 'rack', 'host', 'fabric', 'source', 'policy', 'domain', 'time', 'relay', 'proxy', 'syslog', 'lines'));

create table dialogue (
    id         bigint generated always as identity primary key,
    run_id     bigint not null references run on delete cascade,
    unit_id    bigint not null references unit,
    member     text not null default '',
    place      integer not null check (place >= 0),
    line       text not null default '',
    mode       text not null check (mode in ('WATCH', 'ASK', 'RUN')),
    -- SHUT: its gate does not hold yet. BY_HAND: no line can be reached, and a person ticks the steps.
    state      text not null check (state in ('SHUT', 'BY_HAND', 'UNSURE', 'FOLLOWING', 'WAITING', 'HELD', 'CUT', 'STOPPED', 'DONE')),
    wiped      boolean not null default false,
    identified boolean not null default false,
    hold       jsonb,
    note       text not null default '',
    gate       text not null default '',
    opened_at  timestamptz,
    ended_at   timestamptz,
    constraint dialogue_member unique (run_id, member)
);
create index on dialogue (unit_id);

create table dialogue_step (
    dialogue_id bigint not null references dialogue on delete cascade,
    place       integer not null check (place >= 0),
    title       text not null,
    progress    text not null check (progress in ('OPEN', 'SENT', 'DONE', 'LEFT_OUT')),
    answer      text,
    by_whom     text not null default '',
    times_sent  integer not null default 0 check (times_sent >= 0),
    sent_at     timestamptz,
    done_at     timestamptz,
    evidence    text not null default '',
    primary key (dialogue_id, place)
);

-- What a member's line has told, for its own later steps and for the other members.
create table dialogue_value (
    dialogue_id bigint not null references dialogue on delete cascade,
    name        text not null,
    value       text not null check (length(value) <= 400),
    at          timestamptz not null,
    primary key (dialogue_id, name)
);

-- How long each wait and each stretch of hands-on work took: the lanes.
create table dialogue_stretch (
    id          bigint generated always as identity primary key,
    dialogue_id bigint not null references dialogue on delete cascade,
    kind        text not null check (kind in ('hands', 'wait', 'held')),
    title       text not null,
    began_at    timestamptz not null,
    ended_at    timestamptz,
    about       bigint not null default 0,
    at_most     bigint not null default 0
);
create index on dialogue_stretch (dialogue_id);

-- The recording, without secrets: what the line showed, and marks between.
create table line_piece (
    dialogue_id bigint not null references dialogue on delete cascade,
    number      bigint not null,
    at          timestamptz not null,
    kind        text not null check (kind in ('o', 'm')),
    text        text not null,
    primary key (dialogue_id, number)
);

-- Each time a password was sent to a machine.
create table credential_try (
    id         bigint generated always as identity primary key,
    unit_id    bigint not null references unit,
    member     text not null,
    way        text not null,
    credential text not null,
    at         timestamptz not null default now()
);
create index on credential_try (unit_id);

-- The key of a line server, remembered at first sight.
create table line_key (
    server      text primary key,
    fingerprint text not null,
    seen_at     timestamptz not null
);
