-- Open items of the hand-over have a day; people are told before it comes.

-- handover
create view dated_item as
select i.id, i.bring_up_id, i.unit_id, i.text, i.due
from open_item i
where i.closed_at is null;

-- prove.notices: how many days before its day an item was told to whom
create table told_item (
    target_id   bigint not null references notice_target on delete cascade,
    item_id     bigint not null references open_item on delete cascade,
    days_before integer not null check (days_before >= 0),
    primary key (target_id, item_id, days_before)
);
