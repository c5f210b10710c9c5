-- Kinds of equipment belong to their users: each has versions, and a published version never changes.

create table kind (
    id         text primary key check (id ~ '^[a-z][a-z0-9-]{0,39}$'),
    created_at timestamptz not null default now(),
    retired_at timestamptz
);

create table kind_version (
    kind_id      text not null references kind,
    version      integer not null check (version > 0),
    text         text not null check (length(text) between 1 and 100000),
    digest       text not null check (digest ~ '^[0-9a-f]{64}$'),
    title        text not null,
    way          text not null,
    shipped      boolean not null,
    note         text not null default '' check (length(note) <= 400),
    published_by bigint references account,
    published_at timestamptz not null default now(),
    primary key (kind_id, version)
);

create function kind_version_frozen() returns trigger language plpgsql as $$
begin
    raise exception using errcode = '23514', constraint = 'kind_version_frozen',
        message = 'a published version of a kind is never changed';
end $$;
create trigger kind_version_frozen before update or delete on kind_version
    for each row execute function kind_version_frozen();

-- What somebody is writing: at most one for each kind. It may be full of faults.
create table kind_draft (
    kind_id   text primary key references kind,
    text      text not null check (length(text) <= 100000),
    revision  bigint not null default 1,
    edited_by bigint references account,
    edited_at timestamptz not null
);

-- What a site, or one bring-up of it, does differently. The newest of the same place counts; one that was removed never does.
create table kind_adjustment (
    id          bigint generated always as identity primary key,
    kind_id     text not null references kind,
    site_id     bigint not null references site,
    bring_up_id bigint references bring_up,
    what        text not null,
    value       text not null check (length(value) <= 400),
    key_id      text,
    nonce       bytea,
    sealed      bytea,
    reason      text not null check (length(reason) between 8 and 400),
    made_by     bigint not null references account,
    made_at     timestamptz not null,
    removed_by  bigint references account,
    removed_at  timestamptz,
    check ((removed_by is null) = (removed_at is null)),
    check ((sealed is null) = (key_id is null) and (sealed is null) = (nonce is null))
);
create unique index kind_adjustment_once on kind_adjustment (kind_id, site_id, coalesce(bring_up_id, 0), what)
    where removed_at is null;

-- Every server looks at this number before it uses what it remembers of kinds and adjustments.
create table kind_revision (
    one      boolean primary key default true check (one),
    revision bigint not null
);
insert into kind_revision (revision) values (1);
create function kind_changed() returns trigger language plpgsql as $$
begin
    update kind_revision set revision = revision + 1;
    return null;
end $$;
create trigger kind_changed after insert or update on kind for each statement execute function kind_changed();
create trigger kind_changed after insert on kind_version for each statement execute function kind_changed();
create trigger kind_changed after insert or update on kind_adjustment
    for each statement execute function kind_changed();

alter table unit alter column kind drop default;
alter table unit add column kind_version integer not null default 1;
alter table unit alter column kind_version drop default;
