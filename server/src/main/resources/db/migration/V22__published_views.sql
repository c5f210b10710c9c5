-- What packages publish of their tables for those that come before them and may not read the tables themselves.
-- They are read only. Which package owns which table or view stands in TablesTest.

-- units
create view unit_kind as
select u.id as unit_id, u.bring_up_id, u.kind, u.kind_version, l.label, u.retired_at is null as in_use
from unit u join unit_label l on l.id = u.id;

create view unit_fact as
select u.bring_up_id, f.unit_id, f.name, f.value
from fact f join unit u on u.id = f.unit_id
where f.value is not null and u.retired_at is null;

-- allocate
create view unit_address as
select c.id as claim_id, c.unit_id, c.network_id, c.allocation, c.host_name, c.domain,
       c.released_at is null as live,
       exists (select 1 from name_record n where n.claim_id = c.id and n.state = 'MADE') as has_record
from claim c;

-- jobs
create view unit_run as
select unit_id, purpose, state, started_at, ended_at, earlier from run;

-- vantage: units that are reached through a vantage point, and the server that it has dialled in to
create view unit_link as
select c.unit_id, v.linked_to
from unit_address c join network n on n.id = c.network_id join vantage v on v.id = n.vantage_id
where c.live and v.revoked_at is null and v.linked_until > now();

-- prove
create view checked_address as
select claim_id, unit_id, proven, broken is null as holds from proof;

-- prove.notices
create view notice_host as
select substring(target from '^https://\[?([0-9a-f.:]+?)\]?(?::[0-9]+)?(?:/|$)') as host
from notice_target where sort = 'webhook';

-- handover
create view signed_unit as
select unit_id, bring_up_id from record where ended_at is null;

create view chained_record as
select id, bring_up_id, body, ended_at, ended_by, ended_why from record;

create view chained_pack as
select id, manifest from pack;
