-- A unit has as many endpoints as it has addresses: what was found belongs to each of them, and the certificate that is remembered to
-- what the address is for, so that it outlives another address.
alter table proof drop constraint proof_pkey;
alter table proof add primary key (claim_id);
alter table proof add column beside jsonb not null default '[]';
alter table proof add column mark text;
alter table proof add column fingerprint text check (fingerprint ~ '^[0-9a-f]{64}$');
create index proof_unit on proof (unit_id);

alter table known_certificate drop constraint known_certificate_pkey;
alter table known_certificate add column role text;
update known_certificate set role = coalesce((select claim.role from claim where claim.unit_id = known_certificate.unit_id and claim.place = 0 order by claim.released_at nulls first limit 1), 'management');
alter table known_certificate alter column role set not null;
alter table known_certificate add primary key (unit_id, role);

-- What an endpoint came to, each time that this was something else than before.
create table proof_change (
    id        bigint generated always as identity primary key,
    claim_id  bigint not null references claim,
    at        timestamptz not null,
    height    integer not null check (height between 0 and 7),
    proven    boolean not null,
    sentence  text not null
);
create index proof_change_claim on proof_change (claim_id, id);

-- Bring-ups whose endpoints are checked again and again, and when the next time is.
create table check_pace (
    bring_up_id bigint primary key references bring_up,
    minutes     integer not null check (minutes between 1 and 10080),
    next_at     timestamptz not null,
    set_by      bigint not null references account
);
