-- A person does the whole setup of a machine that is not described yet, and the program learns it.
alter table dialogue drop constraint dialogue_state_check;
alter table dialogue add constraint dialogue_state_check check (state in (
    'SHUT', 'BY_HAND', 'UNSURE', 'FOLLOWING', 'WAITING', 'HELD', 'CUT', 'STOPPED', 'MANUAL', 'DONE'));

-- What was shown (o) and typed (i) meanwhile. Which of it is a password is not known yet: all of it is sealed.
create table setup_piece (
    dialogue_id bigint not null references dialogue on delete cascade,
    number      bigint not null check (number >= 0),
    at          timestamptz not null,
    kind        text not null check (kind in ('o', 'i')),
    key_id      text not null,
    nonce       bytea not null,
    sealed      bytea not null,
    primary key (dialogue_id, number)
);
