-- Signed certificates also come onto machines over the interface of their pages, or by hand. A chain that a person
-- installs is kept until the machine shows it.
alter table certificate_request
    add column way text not null default 'REDFISH' check (way in ('REDFISH', 'PAGES', 'BY_HAND')),
    drop constraint certificate_request_state_check,
    add constraint certificate_request_state_check check (state in ('WAITING', 'SIGNED', 'PUT_IN', 'DROPPED')),
    add constraint certificate_request_signed check (state <> 'SIGNED' or chain is not null and way = 'BY_HAND');
alter table certificate_request alter column way drop default;
drop index certificate_request_waits;
create unique index certificate_request_waits on certificate_request (claim_id) where state in ('WAITING', 'SIGNED');
