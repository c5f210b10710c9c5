-- Image files of virtual machines: received or found in the folder of a server, and read once to their end.
create table image (
    id          bigint generated always as identity primary key,
    site_id     bigint not null references site,
    name        text not null check (name ~ '^[^/\\[:cntrl:]]{1,200}$'),
    in_folder   boolean not null,
    bytes       bigint not null check (bytes between 1 and 1099511627776),
    received    bigint not null check (received between 0 and bytes),
    state       text not null check (state in ('ARRIVING', 'READING', 'CHECKED', 'FAILED')),
    bytes_read  bigint not null default 0 check (bytes_read between 0 and bytes),
    fence       integer not null default 0,
    heard_at    timestamptz,
    fault       text,
    sha256      text check (sha256 ~ '^[0-9a-f]{64}$'),
    format      text,
    files       jsonb not null default '[]',
    manifest    text not null default '' check (length(manifest) <= 100000),
    description text not null default '' check (length(description) <= 1000000),
    -- the two texts as they were read
    stated      jsonb not null default '[]',
    described   jsonb,
    added_by    text not null,
    added_at    timestamptz not null,
    checked_at  timestamptz,
    unique (site_id, name),
    check ((state = 'CHECKED') = (sha256 is not null and format is not null and checked_at is not null)),
    check ((state = 'FAILED') = (fault is not null)),
    check (state in ('ARRIVING', 'FAILED') or received = bytes)
);
create index image_reading on image (heard_at) where state = 'READING';
