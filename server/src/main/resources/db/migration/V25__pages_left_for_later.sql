-- A page may wait for a value after the setup has ended.
alter table dialogue_step drop constraint dialogue_step_progress_check;
alter table dialogue_step add constraint dialogue_step_progress_check
    check (progress in ('OPEN', 'SENT', 'DONE', 'LEFT_OUT', 'LATER'));

-- They are looked for every few seconds, among all steps there are.
create index dialogue_step_later on dialogue_step (dialogue_id) where progress = 'LATER';
