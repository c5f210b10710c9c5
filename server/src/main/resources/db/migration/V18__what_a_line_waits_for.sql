-- What keeps a line shut, as a code beside its sentence: the sentence is for people alone. Its name is prerequisite.
alter table dialogue rename column gate to prerequisite;
alter table dialogue add column waits_for text not null default 'NOTHING';
update dialogue
set waits_for = case prerequisite when 'opens when what comes before it is ticked' then 'TICKS' else 'MEMBER' end
where prerequisite <> '';
update dialogue set hold = jsonb_set(hold, '{why}', '"PREREQUISITE"') where hold ->> 'why' = 'GATE';
alter table dialogue
    alter column waits_for drop default,
    add constraint dialogue_waits_for check (waits_for in ('NOTHING', 'TICKS', 'MEMBER')),
    add constraint dialogue_waits_for_says check ((waits_for = 'NOTHING') = (prerequisite = ''));
