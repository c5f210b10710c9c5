-- What to call a unit while it has no host name, for those who list units without reading them: as Unit.label() says it.
create view unit_label as
select id, coalesce(name, serial, rack || ' u' || rack_unit, 'unit ' || number) as label
from unit;
