-- jobs: the passwords of machines in use are replaced in rounds, as machines are set up in rounds
alter table run drop constraint run_purpose_check;
alter table run add constraint run_purpose_check check (purpose in ('configure', 'prove', 'console', 'password'));
alter table round add column purpose text not null default 'configure' check (purpose in ('configure', 'password'));
