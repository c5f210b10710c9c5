-- Recordings that are kept with a kind: a version with a dialogue is published if it agrees with all of them,
-- or with a reason.
create table kind_recording (
    id       bigint generated always as identity primary key,
    kind_id  text not null references kind on delete cascade,
    name     text not null check (name ~ '^[a-z0-9][a-z0-9-]{0,79}$'),
    text     text not null check (length(text) between 1 and 2000000),
    digest   text not null check (digest ~ '^[0-9a-f]{64}$'),
    stays    boolean not null,
    kept_by  bigint references account,
    kept_at  timestamptz not null,
    unique (kind_id, name),
    unique (kind_id, digest)
);
comment on column kind_recording.stays is 'it shows a factory login of this site, and is left out of packages';

alter table kind_version add column despite text not null default '' check (length(despite) <= 400);
comment on column kind_version.despite is 'why it was published although a recording did not agree; or empty';
