-- Networks of several purposes, things of a site, units of several members with facts, and addresses with roles.

alter table network
    add column purpose   text not null default 'management' check (purpose in ('management', 'storage-data', 'tunnel', 'in-band', 'service-port')),
    add column segment   text not null default '' check (length(segment) <= 40),
    add column mtu       integer check (mtu between 576 and 9216),
    add column permanent boolean not null default false;

-- Every network that the units of a bring-up take from; bring_up.network_id is the one that they are managed in.
create table bring_up_network (
    bring_up_id bigint not null references bring_up on delete cascade,
    network_id  bigint not null references network on delete cascade,
    primary key (bring_up_id, network_id)
);
insert into bring_up_network select id, network_id from bring_up where network_id is not null;

-- What a site has besides: what sorts there are and what fields they have is the program's to say.
create table thing (
    id      bigint generated always as identity primary key,
    site_id bigint not null references site,
    sort    text not null check (sort in ('room', 'rack', 'host', 'fabric', 'source', 'policy', 'domain', 'time', 'relay', 'proxy', 'syslog')),
    name    text not null check (length(name) between 1 and 80),
    value   jsonb not null check (jsonb_typeof(value) = 'object'),
    key_id  text,
    nonce   bytea check (length(nonce) = 12),
    sealed  bytea,
    constraint thing_name unique (site_id, sort, name),
    constraint thing_sealed check ((sealed is null) = (nonce is null) and (sealed is null) = (key_id is null))
);

-- What a service answered when it was last asked.
create table measured (
    site_id  bigint not null references site on delete cascade,
    kind     text not null check (kind in ('GATEWAY', 'NAME', 'TIME', 'RELAY', 'PROXY')),
    address  inet not null,
    state    text not null check (state in ('FINE', 'ODD', 'LIES', 'SILENT')),
    sentence text not null,
    detail   jsonb not null,
    at       timestamptz not null,
    primary key (site_id, kind, address)
);

alter table unit
    add column kind    text not null default 'server-controller',
    add column name    text check (name ~ '^[a-z0-9]([a-z0-9-]{0,61}[a-z0-9])?$'),
    add column members integer not null default 1 check (members between 1 and 16),
    alter column rack drop not null,
    alter column rack_unit drop not null,
    drop constraint unit_label,
    add constraint unit_place check ((rack is null) = (rack_unit is null));
create unique index unit_name on unit (bring_up_id, name) where name is not null;

-- What people said of a unit or of one of its members. A one-member unit's own label lies in its row.
create table fact (
    unit_id bigint not null references unit on delete cascade,
    member  text not null default '',
    name    text not null check (name ~ '^[a-z][a-z0-9-]{0,39}$'),
    value   text not null check (length(value) between 1 and 4000),
    source  text not null check (source in ('TYPED', 'IMPORTED', 'LABEL', 'DERIVED')),
    set_by  bigint not null references account,
    set_at  timestamptz not null default now(),
    key_id  text,
    nonce   bytea check (length(nonce) = 12),
    sealed  bytea,
    primary key (unit_id, member, name)
);

-- One change of the sheet, kept so that it can be undone: which cells, what stood there and what came.
create table sheet_change (
    id          bigint generated always as identity primary key,
    bring_up_id bigint not null references bring_up,
    account_id  bigint not null references account,
    at          timestamptz not null default now(),
    cells       jsonb not null,
    undone_at   timestamptz
);

alter table claim
    add column role        text not null default 'management' check (length(role) between 1 and 80),
    add column place       integer not null default 0 check (place >= 0),
    add column alias       text check (alias ~ '^[a-z0-9]([a-z0-9-]{0,61}[a-z0-9])?$'),
    add column cools_until timestamptz;
drop index claim_live_unit;
create unique index claim_live_unit on claim (unit_id, role, network_id) where released_at is null;
drop index claim_live_name;
-- one name may stand for an IPv4 and an IPv6 address
create unique index claim_live_name on claim (domain, host_name, family(address)) where released_at is null;
create index on claim (network_id, cools_until);

-- Growth is kept behind a unit's run and goes with its taking.
alter table address_range
    drop constraint address_range_purpose_check,
    add constraint address_range_purpose_check check (purpose in ('pool', 'kept', 'dhcp', 'growth')),
    add column unit_id bigint references unit on delete cascade,
    add column taking  uuid,
    add constraint address_range_growth check ((purpose = 'growth') = (unit_id is not null));

-- An address that answers although nobody here gave it out.
create table stranger (
    network_id  bigint not null references network on delete cascade,
    address     inet not null,
    mac         macaddr,
    sentence    text not null,
    first_heard timestamptz not null,
    last_heard  timestamptz not null,
    primary key (network_id, address)
);

-- A record that a claim needs, and how far it is on its way to the name server.
create table name_record (
    id       bigint generated always as identity primary key,
    claim_id bigint not null references claim,
    zone     text not null,
    owner    text not null,
    type     text not null check (type in ('A', 'AAAA', 'PTR', 'CNAME')),
    data     text not null,
    state    text not null check (state in ('PLANNED', 'SENDING', 'MADE', 'REFUSED', 'UNKNOWN', 'WITHDRAWING', 'WITHDRAWN')),
    answer   text not null default '',
    at       timestamptz not null default now(),
    constraint name_record_once unique (claim_id, type, owner)
);
create index on name_record (state);
