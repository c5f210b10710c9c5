-- Which machine it is, where no machine tells it: what a person read on it, who, and when.
alter table dialogue
    add column compared_text text,
    add column compared_by   text,
    add column compared_at   timestamptz,
    add constraint dialogue_compared_whole check (num_nonnulls(compared_text, compared_by, compared_at) in (0, 3)),
    add constraint dialogue_compared_length check (length(compared_text) between 1 and 120);
