-- What an endpoint shows of itself, by what it is, as it was when it was accepted: at first with its proof, later by a person.
create table accepted_trait (
    unit_id     bigint not null references unit,
    role        text not null,
    what        text not null check (length(what) between 1 and 200),
    value       text not null check (length(value) <= 4000),
    at          timestamptz not null,
    accepted_by bigint references account,
    primary key (unit_id, role, what)
);

-- What is not as it was accepted. One that is open or held for a fault stands until it is as before, or is accepted.
create table trait_change (
    id         bigint generated always as identity primary key,
    claim_id   bigint not null references claim,
    what       text not null,
    before     text not null,
    now        text not null,
    since      timestamptz not null,
    state      text not null default 'OPEN' check (state in ('OPEN', 'FAULT', 'ACCEPTED', 'GONE')),
    reason     text not null default '' check (length(reason) <= 400),
    decided_by bigint references account,
    decided_at timestamptz,
    constraint trait_change_decided check ((state in ('FAULT', 'ACCEPTED')) = (decided_by is not null))
);
create unique index trait_change_stands on trait_change (claim_id, what) where state in ('OPEN', 'FAULT');

-- What was shown in full, for those who get the record.
alter table proof add column chain text[];
alter table proof add column host_key text;
alter table known_certificate add column host_key text;
alter table known_certificate alter column fingerprint drop not null;
alter table known_certificate add constraint known_certificate_something check (fingerprint is not null or host_key is not null);

-- Up to which rung a check goes; the others stay as they were found before.
alter table run add column rung smallint check (rung between 0 and 6);

-- Every time that a rung was found to hold or not, where that was something else than before: as one letter for each rung.
alter table proof_change add column standings text not null default '' check (standings ~ '^[hbnm]{0,7}$');

-- A request for a certificate that a machine has made, and what became of it (PKCS #10, RFC 2986).
create table certificate_request (
    id           bigint generated always as identity primary key,
    claim_id     bigint not null references claim,
    request      text not null,
    collection   text not null,
    asked_by     bigint not null references account,
    asked_at     timestamptz not null,
    state        text not null default 'WAITING' check (state in ('WAITING', 'PUT_IN', 'DROPPED')),
    chain        text,
    put_in_by    bigint references account,
    put_in_at    timestamptz
);
create unique index certificate_request_waits on certificate_request (claim_id) where state = 'WAITING';

-- Places in other networks that reach machines for us. A token is kept as its digest alone; one that is revoked is never taken again.
create table vantage (
    id           bigint generated always as identity primary key,
    name         text not null check (name ~ '^[a-z0-9]([a-z0-9-]{0,38}[a-z0-9])?$'),
    token_digest text not null unique check (token_digest ~ '^[0-9a-f]{64}$'),
    made_by      bigint not null references account,
    made_at      timestamptz not null,
    revoked_at   timestamptz,
    seen_at      timestamptz
);
create unique index vantage_name on vantage (name) where revoked_at is null;
alter table network add column vantage_id bigint references vantage;

-- The number of the newest step that a vantage has handed in.
alter table dialogue add column handed_in bigint not null default 0;

-- Who is told of changes, and how far they were told.
create table notice_target (
    id          bigint generated always as identity primary key,
    bring_up_id bigint not null references bring_up,
    sort        text not null check (sort in ('webhook', 'mail')),
    target      text not null check (length(target) between 3 and 400),
    key_id      text,
    nonce       bytea check (length(nonce) = 12),
    sealed      bytea,
    fingerprint text check (fingerprint ~ '^[0-9a-f]{64}$'),
    told_change bigint not null default 0,
    told_trait  timestamptz not null,
    sent_at     timestamptz,
    fault       text not null default '',
    tried_at    timestamptz,
    made_by     bigint not null references account,
    unique (bring_up_id, sort, target)
);
