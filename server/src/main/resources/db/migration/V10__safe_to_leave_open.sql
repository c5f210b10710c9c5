-- The journal names only what exists. Rows from before are not looked at again: they stay as they are.
alter table journal add constraint journal_bring_up foreign key (bring_up_id) references bring_up not valid;

-- A unit can be deleted later while its entries stay, so that it must exist when an entry is written, and not afterwards.
create function journal_unit_exists() returns trigger language plpgsql as $$
begin
    if new.unit_id is not null and not exists (select 1 from unit where id = new.unit_id) then
        raise exception using errcode = '23503', constraint = 'journal_unit', message = 'the journal names a unit that does not exist';
    end if;
    return new;
end $$;
create trigger journal_unit_exists before insert on journal for each row execute function journal_unit_exists();

-- How the entry of a link was written for its digest: 1 with ids as numbers, 2 with ids as text. An entry that cannot be written
-- at all has a link of its own sort, so that it never stops the chain.
alter table chain_link add column form smallint not null default 1 check (form in (1, 2));
alter table chain_link alter column form drop default;
alter table chain_link drop constraint chain_link_sort_check;
alter table chain_link add constraint chain_link_sort_check check (sort in ('journal', 'unlinked', 'record', 'end', 'pack'));

-- A key is reserved before the request is carried out; its answer follows. Keys are kept for a day, so that none are carried over.
drop table answered;
create table answered (
    account_id   bigint not null references account on delete cascade,
    key          text not null check (length(key) between 8 and 120),
    request      text not null check (request ~ '^[0-9a-f]{64}$'),
    reserved_at  timestamptz not null,
    status       integer check (status between 200 and 299),
    answer       text,
    answered_at  timestamptz,
    primary key (account_id, key),
    constraint answered_whole check ((status is null) = (answered_at is null))
);

-- Accounts that were disabled keep their name in the journal; nobody signs in with them.
alter table account add column disabled_at timestamptz;
alter table account alter column password_hash drop not null;

-- Sessions end some time after the last request, and at the latest at their end.
alter table sign_in add column seen_at timestamptz not null default now();
alter table sign_in add column agent text not null default '' check (length(agent) <= 200);
alter table sign_in add column source text not null default '' check (length(source) <= 60);
alter table sign_in add column password_at timestamptz not null default now();
create index on sign_in (account_id);

-- A link by which a person sets a password once: for a new account, or where a password was forgotten.
create table invitation (
    account_id   bigint primary key references account on delete cascade,
    token_digest bytea not null unique check (length(token_digest) = 32),
    made_by      bigint references account,
    ends_at      timestamptz not null
);
