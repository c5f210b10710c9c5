-- What people have said of the columns of their label lists, by the headings of the list.
create table label_mapping (
    headings  text primary key check (headings ~ '^[0-9a-f]{64}$'),
    columns   jsonb not null,
    chosen_by bigint references account,
    chosen_at timestamptz not null default now()
);
