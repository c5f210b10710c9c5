package lychnos.lab;

import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.concurrent.TimeUnit;

/** Where a machine is plugged in: gives it its addresses on the wire, and takes them away so that they fall silent. */
public interface Plug {

    void connect(MachineSpec spec, int index);

    void addAddress(MachineSpec spec, int index, String address);

    void removeAddress(MachineSpec spec, int index, String address);

    /**
     * Loopback: every 127.x address is there already; those of version 6 are added, which takes a network of one's own.
     */
    static Plug loopback() {
        return new Plug() {
            @Override
            public void connect(MachineSpec spec, int index) {}

            @Override
            public void addAddress(MachineSpec spec, int index, String address) {
                if (six(address)) {
                    ip("addr add " + address + "/128 dev lo nodad");
                }
            }

            @Override
            public void removeAddress(MachineSpec spec, int index, String address) {
                if (six(address)) {
                    ip("addr del " + address + "/128 dev lo");
                }
            }
        };
    }

    /** Addresses come and go on one interface, without a MAC address of their own. */
    static Plug shared(String device) {
        return new Plug() {
            @Override
            public void connect(MachineSpec spec, int index) {}

            @Override
            public void addAddress(MachineSpec spec, int index, String address) {
                ip("addr add " + address + (six(address) ? "/64 dev " + device + " nodad" : "/24 dev " + device));
            }

            @Override
            public void removeAddress(MachineSpec spec, int index, String address) {
                ip("addr del " + address + (six(address) ? "/64 dev " : "/24 dev ") + device);
            }
        };
    }

    /** Every machine gets an interface of its own on the hall's wire, with its own MAC address. */
    static Plug ownInterface(String device) {
        return new Plug() {
            private String name(int index) {
                return "m" + index;
            }

            @Override
            public void connect(MachineSpec spec, int index) {
                // a hall that was killed leaves its interfaces behind
                if (Files.exists(Path.of("/proc/sys/net/ipv4/conf", name(index)))) {
                    ip("link del " + name(index));
                }
                ip("link add link " + device + " name " + name(index) + " address " + spec.mac()
                        + " type macvlan mode bridge\n" + "link set " + name(index) + " up");
            }

            @Override
            public void addAddress(MachineSpec spec, int index, String address) {
                ip("addr add " + address
                        + (six(address) ? "/128 dev " + name(index) + " nodad" : "/32 dev " + name(index)));
            }

            @Override
            public void removeAddress(MachineSpec spec, int index, String address) {
                ip("addr del " + address + (six(address) ? "/128 dev " : "/32 dev ") + name(index));
            }
        };
    }

    private static boolean six(String address) {
        return address.contains(":");
    }

    /** Hands lines to {@code ip -batch}. */
    private static void ip(String lines) {
        try {
            Process process = new ProcessBuilder("ip", "-batch", "-")
                    .redirectErrorStream(true)
                    .start();
            process.getOutputStream().write((lines + "\n").getBytes(StandardCharsets.UTF_8));
            process.getOutputStream().close();
            String output = new String(process.getInputStream().readAllBytes(), StandardCharsets.UTF_8);
            if (!process.waitFor(10, TimeUnit.SECONDS) || process.exitValue() != 0) {
                throw new IllegalStateException("ip " + lines + ": " + output);
            }
        } catch (IOException e) {
            throw new IllegalStateException("ip cannot be run", e);
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
            throw new IllegalStateException("interrupted", e);
        }
    }
}
