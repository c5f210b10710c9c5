-- prove: what the machines in use run, as their last check has read it
create view checked_firmware as
select u.bring_up_id, p.unit_id, c.role, p.firmware
from proof p join claim c on c.id = p.claim_id join unit u on u.id = p.unit_id
where c.released_at is null and u.retired_at is null and p.firmware <> '';

-- site: what the site wants its machines to run, by kind
alter table site_resource drop constraint thing_sort_check;
alter table site_resource add constraint site_resource_sort_check check (sort in (
    'room', 'rack', 'host', 'fabric', 'source', 'policy', 'domain', 'time', 'relay', 'proxy', 'syslog', 'lines',
    'firmware'));
