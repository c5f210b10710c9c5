-- What was signed of a unit, as it stood then: frozen. Of a unit one record counts at a time; it ends when the unit is opened again.
create table record (
    id          bigint generated always as identity primary key,
    bring_up_id bigint not null references bring_up,
    unit_id     bigint not null references unit,
    body        text not null,
    digest      text not null unique check (digest ~ '^[0-9a-f]{64}$'),
    signed_by   bigint not null references account,
    signed_at   timestamptz not null,
    ended_at    timestamptz,
    ended_by    bigint references account,
    ended_why   text not null default '' check (length(ended_why) <= 400),
    constraint record_ended check ((ended_at is null) = (ended_by is null) and (ended_at is null) = (ended_why = ''))
);
create unique index record_counts on record (unit_id) where ended_at is null;
create index on record (bring_up_id);

create function record_frozen() returns trigger language plpgsql as $$
begin
    if tg_op = 'DELETE' or old.ended_at is not null or (new.body, new.digest, new.unit_id, new.bring_up_id, new.signed_by, new.signed_at) is distinct from (old.body, old.digest, old.unit_id, old.bring_up_id, old.signed_by, old.signed_at) then
        raise exception using errcode = '23514', constraint = 'record_frozen', message = 'a signed record is never changed';
    end if;
    return new;
end $$;
create trigger record_frozen before update or delete on record for each row execute function record_frozen();

-- What is accepted although it is otherwise, or is still to come: why, until when, and by whom.
create table open_item (
    id          bigint generated always as identity primary key,
    bring_up_id bigint not null references bring_up,
    unit_id     bigint references unit,
    sort        text not null check (sort in ('exception', 'open')),
    text        text not null check (length(text) between 1 and 400),
    reason      text not null check (length(reason) between 1 and 400),
    due         date not null,
    lead        bigint not null references account,
    made_at     timestamptz not null,
    closed_at   timestamptz,
    closed_by   bigint references account,
    constraint open_item_closed check ((closed_at is null) = (closed_by is null))
);
create index on open_item (bring_up_id);

-- A pack that was given away, by the digest of its manifest.
create table pack (
    id          bigint generated always as identity primary key,
    bring_up_id bigint not null references bring_up,
    manifest    text not null check (manifest ~ '^[0-9a-f]{64}$'),
    made_by     bigint not null references account,
    made_at     timestamptz not null
);

-- The chain over journal, records, their ends and packs: each link holds the digest of the one before.
create table chain_link (
    number   bigint primary key check (number > 0),
    sort     text not null check (sort in ('journal', 'record', 'end', 'pack')),
    ref      bigint not null,
    body     text not null check (body ~ '^[0-9a-f]{64}$'),
    previous text not null check (previous ~ '^[0-9a-f]{64}$'),
    digest   text not null unique check (digest ~ '^[0-9a-f]{64}$'),
    unique (sort, ref)
);
create function chain_frozen() returns trigger language plpgsql as $$
begin
    raise exception using errcode = '23514', constraint = 'chain_frozen', message = 'a link is never changed';
end $$;
create trigger chain_frozen before update or delete on chain_link for each row execute function chain_frozen();

-- Tokens of programs: kept as digests, with what they may do and until when.
create table api_token (
    id           bigint generated always as identity primary key,
    account_id   bigint not null references account on delete cascade,
    name         text not null check (length(name) between 1 and 80),
    token_digest text not null unique check (token_digest ~ '^[0-9a-f]{64}$'),
    role         text not null check (role in ('viewer', 'engineer', 'lead')),
    made_at      timestamptz not null,
    ends_at      timestamptz not null,
    used_at      timestamptz,
    revoked_at   timestamptz
);
create unique index api_token_name on api_token (account_id, name) where revoked_at is null;

-- Answers to requests that a program may send again because it did not hear the answer.
create table answered (
    account_id bigint not null references account on delete cascade,
    key        text not null check (length(key) between 8 and 120),
    request    text not null check (request ~ '^[0-9a-f]{64}$'),
    answer     text not null,
    at         timestamptz not null,
    primary key (account_id, key)
);
