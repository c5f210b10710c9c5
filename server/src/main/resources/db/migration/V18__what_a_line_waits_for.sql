-- What keeps a line shut, as a code beside its sentence: the sentence is for people alone.
alter table dialogue add column waits_for text not null default 'NOTHING';
update dialogue set waits_for = case gate when 'opens when what comes before it is ticked' then 'TICKS' else 'MEMBER' end
where gate <> '';
alter table dialogue
    alter column waits_for drop default,
    add constraint dialogue_waits_for check (waits_for in ('NOTHING', 'TICKS', 'MEMBER')),
    add constraint dialogue_waits_for_says check ((waits_for = 'NOTHING') = (gate = ''));
