package lychnos.core.rule;

import java.util.List;
import lychnos.core.address.Address;

/** A planned name that already leads to another address. */
final class RecordDisagrees implements Rule {

    @Override
    public List<Finding> look(Plan plan) {
        return plan.units().stream()
                .flatMap(unit -> unit.seats().stream().flatMap(seat -> plan.records().stream()
                        .filter(record -> record.fqdn().equals(seat.hostName() + "." + seat.domain()))
                        .filter(record -> Address.parse(record.address()).family() == seat.address().family() && !record.address().equals(seat.address().toString()))
                        .map(record -> Finding.blocks(
                                "record-disagrees",
                                Finding.About.unit(unit),
                                record.fqdn() + " leads to " + record.address() + " already, planned is " + seat.address(),
                                "Somebody else made that record; it is never overwritten from here. Ask whose it is, or choose another name."))))
                .toList();
    }
}
