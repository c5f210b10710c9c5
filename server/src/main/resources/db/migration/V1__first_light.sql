-- Everything has its constraint here: what the program checks for the sake of a good message, the database refuses.
create extension if not exists btree_gist;

create table account (
    id            bigint generated always as identity primary key,
    login         text not null unique check (login ~ '^[a-z][a-z0-9._-]{1,31}$'),
    name          text not null check (length(name) between 1 and 80),
    role          text not null check (role in ('viewer', 'engineer', 'lead')),
    password_hash text not null,
    created_at    timestamptz not null default now()
);

-- One row a signed-in browser; the cookie holds the token, this row only its digest.
create table sign_in (
    id           bigint generated always as identity primary key,
    account_id   bigint not null references account on delete cascade,
    token_digest bytea not null unique check (length(token_digest) = 32),
    created_at   timestamptz not null default now(),
    ends_at      timestamptz not null
);

-- The one-time code with which the first lead sets a password. At most one row.
create table first_lead (
    only_one    boolean primary key default true check (only_one),
    code_digest bytea not null check (length(code_digest) = 32)
);

create table site (
    id   bigint generated always as identity primary key,
    code text not null unique check (code ~ '^[a-z][a-z0-9]{1,11}$'),
    name text not null
);

create table realm (
    id      bigint generated always as identity primary key,
    site_id bigint not null references site,
    name    text not null,
    unique (site_id, name)
);

create table bring_up (
    id           bigint generated always as identity primary key,
    site_id      bigint not null references site,
    realm_id     bigint not null references realm,
    name         text not null unique check (length(name) between 1 and 80),
    kind         text not null,
    due          date,
    name_pattern text not null,
    network_id   bigint,
    created_at   timestamptz not null default now()
);

create table network (
    id           bigint generated always as identity primary key,
    realm_id     bigint not null references realm,
    name         text not null check (length(name) between 1 and 80),
    prefix       cidr not null,
    gateway      inet,
    vlan         integer check (vlan between 1 and 4094),
    domain       text not null,
    name_servers text[] not null default '{}',
    time_servers text[] not null default '{}',
    constraint network_overlap exclude using gist (realm_id with =, prefix inet_ops with &&),
    constraint network_gateway check (gateway is null or (gateway << prefix and masklen(gateway) in (32, 128)))
);

alter table bring_up add constraint bring_up_network foreign key (network_id) references network;

-- A named row of addresses inside a network: a pool to take from, a range kept for something else, or what DHCP hands out.
create table address_range (
    id         bigint generated always as identity primary key,
    network_id bigint not null references network on delete cascade,
    purpose    text not null check (purpose in ('pool', 'kept', 'dhcp')),
    first      inet not null,
    last       inet not null,
    note       text not null default '' check (length(note) <= 120),
    constraint address_range_order check (first <= last and family(first) = family(last))
);
create index on address_range (network_id);

create table unit (
    id            bigint generated always as identity primary key,
    bring_up_id   bigint not null references bring_up,
    number        integer not null check (number > 0),
    rack          text not null,
    rack_unit     integer not null check (rack_unit between 1 and 99),
    serial        text check (length(serial) between 1 and 64),
    mac           macaddr,
    model         text not null default '',
    first_address inet,
    constraint unit_number unique (bring_up_id, number),
    constraint unit_position unique (bring_up_id, rack, rack_unit),
    constraint unit_serial unique (serial),
    constraint unit_mac unique (mac),
    constraint unit_label check ((serial is null) = (mac is null))
);

-- One reading of a label list, kept so that it can be undone: per unit what was there before, null where it is new.
create table label_import (
    id          bigint generated always as identity primary key,
    bring_up_id bigint not null references bring_up,
    account_id  bigint not null references account,
    at          timestamptz not null default now(),
    undone_at   timestamptz
);

create table label_import_unit (
    import_id bigint not null references label_import on delete cascade,
    unit_id   bigint not null references unit on delete cascade,
    created   boolean not null,
    primary key (import_id, unit_id)
);

-- An address that a unit bears or is about to bear. Live until it is released.
create table claim (
    id          bigint generated always as identity primary key,
    unit_id     bigint not null references unit,
    network_id  bigint not null references network,
    realm_id    bigint not null references realm,
    address     inet not null check (masklen(address) in (32, 128)),
    host_name   text not null check (host_name ~ '^[a-z0-9]([a-z0-9-]{0,61}[a-z0-9])?$'),
    domain      text not null,
    taking      uuid not null,
    taken_by    bigint not null references account,
    taken_at    timestamptz not null default now(),
    released_at timestamptz
);
create unique index claim_live_address on claim (realm_id, address) where released_at is null;
create unique index claim_live_name on claim (domain, host_name) where released_at is null;
create unique index claim_live_unit on claim (unit_id) where released_at is null;
create index on claim (taking);

-- An address is claimed only inside its network.
create function claim_inside_network() returns trigger language plpgsql as $$
begin
    if not exists (select 1 from network n where n.id = new.network_id and n.realm_id = new.realm_id and new.address << n.prefix) then
        raise exception using errcode = '23514', constraint = 'claim_inside_network', message = 'address outside its network';
    end if;
    return new;
end $$;
create trigger claim_inside_network before insert or update on claim for each row execute function claim_inside_network();

create table sealed_secret (
    id         bigint generated always as identity primary key,
    unit_id    bigint not null references unit,
    key_id     text not null,
    nonce      bytea not null check (length(nonce) = 12),
    sealed     bytea not null,
    state      text not null check (state in ('made', 'proven')),
    created_at timestamptz not null default now()
);
create unique index sealed_secret_made on sealed_secret (unit_id) where state = 'made';
create unique index sealed_secret_proven on sealed_secret (unit_id) where state = 'proven';

-- Units that are set up together, in an order: the first alone, then so many at once.
create table round (
    id          bigint generated always as identity primary key,
    bring_up_id bigint not null references bring_up,
    width       integer not null check (width between 1 and 50),
    started_by  bigint not null references account,
    started_at  timestamptz not null default now()
);

-- Long work on one unit. A worker holds it while its lease lasts; the fence grows with every holder, and a holder whose
-- fence is old can change nothing any more.
create table run (
    id           bigint generated always as identity primary key,
    round_id     bigint references round,
    unit_id      bigint not null references unit,
    purpose      text not null check (purpose in ('configure', 'prove')),
    place        integer not null default 0,
    state        text not null check (state in ('WAITING', 'RUNNING', 'DONE', 'STOPPED', 'CANCELLED', 'SET_ASIDE')),
    step         text,
    note         text not null default '',
    advice       text not null default '',
    found_at     inet,
    fence        bigint not null default 0,
    lease_owner  text,
    lease_until  timestamptz,
    cancel       boolean not null default false,
    created_at   timestamptz not null default now(),
    started_at   timestamptz,
    step_at      timestamptz,
    ended_at     timestamptz
);
-- one live run a unit: two people pressing Start at once start it once
create unique index run_live on run (unit_id, purpose) where state in ('WAITING', 'RUNNING', 'STOPPED');
create index on run (state, lease_until);
create index on run (round_id);

create table run_step (
    id       bigint generated always as identity primary key,
    run_id   bigint not null references run on delete cascade,
    step     text not null,
    at       timestamptz not null default now(),
    note     text not null default '',
    holds    boolean not null
);
create index on run_step (run_id);

-- The newest climb of each endpoint.
create table proof (
    unit_id     bigint primary key references unit,
    claim_id    bigint not null references claim,
    at          timestamptz not null,
    place       text not null,
    height      integer not null check (height between 0 and 7),
    broken      text,
    sentence    text not null,
    press       text not null,
    proven      boolean not null,
    proven_at   timestamptz,
    outcomes    jsonb not null,
    fields      jsonb not null,
    firmware    text,
    millis      double precision
);

-- The certificate remembered for a unit.
create table known_certificate (
    unit_id     bigint primary key references unit,
    fingerprint text not null check (fingerprint ~ '^[0-9a-f]{64}$'),
    seen_at     timestamptz not null
);

create table journal (
    id          bigint generated always as identity primary key,
    at          timestamptz not null default now(),
    account_id  bigint references account,
    actor       text not null,
    bring_up_id bigint,
    unit_id     bigint,
    act         text not null,
    before      jsonb,
    after       jsonb
);
create index on journal (bring_up_id, id);
create index on journal (unit_id, id);

-- What was done stays written.
create function journal_is_kept() returns trigger language plpgsql as $$
begin
    raise exception 'the journal is not changed';
end $$;
create trigger journal_is_kept before update or delete on journal for each row execute function journal_is_kept();
