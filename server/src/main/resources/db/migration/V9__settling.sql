-- What was set up a moment ago is asked for every few seconds, among all that ever ran.
create index run_set_up on run (ended_at) where purpose = 'console' and state = 'DONE';
