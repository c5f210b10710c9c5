-- prove: the last day of the certificate that an endpoint shows; known from its next check on
alter table proof add column certificate_ends date;

-- prove.notices: certificates have days too, so what was told is named by a text
alter table told_item drop constraint told_item_pkey;
alter table told_item add column subject text;
update told_item set subject = 'item ' || item_id;
alter table told_item alter column subject set not null;
alter table told_item drop column item_id;
alter table told_item add primary key (target_id, subject, days_before);
alter table told_item rename to told_day;
