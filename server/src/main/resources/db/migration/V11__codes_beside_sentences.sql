-- What the program decides by stands in columns of its own; sentences are for people.

alter table dialogue_step add column ticked boolean not null default false;
update dialogue_step set ticked = true where evidence = 'ticked by hand';

alter table stranger add column answered boolean not null default false;
update stranger set answered = true where sentence like 'answers to %';

-- what a service answered to requests that it may refuse; measured again within minutes
alter table measured add column replies jsonb not null default '[]';
