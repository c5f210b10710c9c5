package lychnos.core.record;

import java.time.Instant;

/**
 * One endpoint as it is handed over. Empty texts and null stand for what is not known.
 *
 * @param name the full name
 * @param fingerprint SHA-256 of the certificate, in hexadecimal
 * @param provenAt when every rung held, in UTC
 */
public record HandoverLine(String name, String address, String serial, String mac, String fingerprint, Instant provenAt) {}
