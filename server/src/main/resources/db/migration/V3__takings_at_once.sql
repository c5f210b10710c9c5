-- The check that a claim lies in its network looks at all rows of a statement at once: thousands are taken in one.
drop trigger claim_inside_network on claim;
create or replace function claim_inside_network() returns trigger language plpgsql as $$
begin
    if exists (select 1 from fresh where not exists (select 1 from network n where n.id = fresh.network_id and fresh.address << n.prefix)) then
        raise exception using errcode = '23514', constraint = 'claim_inside_network', message = 'address outside its network';
    end if;
    return null;
end $$;
create trigger claim_inside_network_insert after insert on claim referencing new table as fresh for each statement execute function claim_inside_network();
create trigger claim_inside_network_update after update on claim referencing new table as fresh for each statement execute function claim_inside_network();

-- A claim's realm is its network's: one key says so, where two keys and a look at the network did.
alter table network add constraint network_of_realm unique (id, realm_id);
alter table claim
    drop constraint claim_network_id_fkey,
    drop constraint claim_realm_id_fkey,
    add constraint claim_network foreign key (network_id, realm_id) references network (id, realm_id);
