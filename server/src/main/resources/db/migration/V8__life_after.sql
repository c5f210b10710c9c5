-- Which server a vantage has dialled in to, and until when that holds unless the server says so again.
alter table vantage add column linked_to text;
alter table vantage add column linked_until timestamptz;

-- Units that are no more: what they bore is free for others, their records stay.
alter table unit add column retired_at timestamptz;
create table retirement (
    unit_id    bigint primary key references unit,
    name       text not null,
    serial     text not null default '',
    mac        macaddr,
    place      text not null default '',
    why        text not null check (length(why) between 1 and 400),
    retired_by bigint not null references account,
    retired_at timestamptz not null
);

-- Machines that took the place of others: what told the two apart, before and after, by the names of facts.
create table replacement (
    id          bigint generated always as identity primary key,
    unit_id     bigint not null references unit,
    member      text not null,
    before      jsonb not null,
    after       jsonb not null,
    why         text not null check (length(why) between 1 and 400),
    replaced_by bigint not null references account,
    replaced_at timestamptz not null
);
create index on replacement (unit_id);

-- Setups, and dialogues of members, of machines that were replaced since.
alter table run add column earlier boolean not null default false;
alter table dialogue add column earlier boolean not null default false;

