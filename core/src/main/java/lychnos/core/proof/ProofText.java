package lychnos.core.proof;

import lychnos.core.text.Message;

/** Texts of checks: verdicts, shared causes and what was seen. */
enum ProofText implements Message {
    ALL_RUNGS_PASS("All seven rungs pass."),
    AS_PLANNED("as planned"),
    CHECK_AGAIN("Check again."),
    CLOCK_AHEAD("{time} ahead"),
    CLOCK_BEHIND("{time} behind"),
    CLOCK_CORRECT("correct to the second"),
    CLOCK_NOT_SHOWN("no standard interface shows the clock"),
    DATA_ADDRESS_ANSWERS("The data address answers. The machine is identified at its management address."),
    DAYS("{days} {days|day|days}"),
    EMPTY_VALUE("empty"),
    FIX_OR_ACCEPT("Fix the fault, or accept the difference."),
    GATEWAY_SILENT("The gateway {gateway} does not answer"),
    GATEWAY_SILENT_FIX("Check the gateway first; the machines may be fine."),
    GATEWAY_SILENT_WHY("Nothing answers at {names}, all of them in {network}."),
    LAGS_BEHIND("{behind} {count|does|do} not have {name} yet, {right} {rightCount|does|do}"),
    MINUTES("{minutes} min"),
    NAMES("{names} and {last}"),
    NAMES_AND_MORE("{names} and {count} more"),
    NAMES_MISSING("Records are missing in {domain}"),
    NAMES_MISSING_WHY("No name server has a record for {names}."),
    NAME_AT_SERVERS("{data} at {servers}"),
    NAME_DIFFERS("{name}: {answers}, expected {expected}"),
    NAME_SERVER_LAGS("Name server {server} lags behind"),
    NAME_SERVER_LAGS_FIX("Check the zone transfer of that server, then check again."),
    NAME_SERVER_LAGS_WHY("This server has no record for {names} yet; another server has."),
    NAME_SERVER_SILENT("Name server {server} does not answer"),
    NAME_SERVER_SILENT_FIX("Check that name server. Units that use it cannot resolve names there either."),
    NAME_SERVER_SILENT_WHY("This server did not answer the query for {names}. Others may have answered."),
    NOTHING_ANSWERS_AT("Nothing answers at {names}."),
    NOT_CHECKED_PAST("Not checked past {lastReached}."),
    NO_RECORD("no record for {name}"),
    NO_ZONE("no zone is defined for this name"),
    PORTAL_ANSWERS(
            "The portal answers and reports its targets. The machine is identified at its management " + "address."),
    PUSH_AGAIN("Push the records again. In Allocate, see whether the zone accepts updates."),
    RACK_SILENT("None of {count} units in rack {rack} answers"),
    RACK_SILENT_FIX("Check the power of the rack and the switch of its management ports."),
    REJECTED("Rejected: {difference}."),
    REVERSE_MISSING("PTR records are missing in {zone}"),
    REVERSE_MISSING_WHY("No PTR record for {names}."),
    RUNGS_PASS("{count} of 7 rungs pass. Not measured: {rungs}."),
    SAME_SETTING("The same wrong setting: {setting}"),
    SAME_SETTING_FIX("Check the network in Prepare before you set up each machine again."),
    SAME_SETTING_WHY("{names} show the same difference."),
    SECONDS("{seconds} s"),
    SERVERS_SILENT("{servers} {count|does|do} not answer"),
    SERVER_ANSWERS("{server} answers {data}"),
    SETTING_DIFFERS("{setting} is {found}, planned {planned}"),
    START("the start"),
    TIME_SERVERS_OFF("{servers}"),
    UNIT_SILENT("Nothing of {unit} answers"),
    UNIT_SILENT_FIX("Check the power of the unit, then its cables.");

    private final String pattern;

    ProofText(String pattern) {
        this.pattern = pattern;
    }

    @Override
    public String pattern() {
        return pattern;
    }
}
