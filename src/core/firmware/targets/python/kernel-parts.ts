/**
 * Parts on one wire that a computer's own kernel reads, under the names that MicroPython has for them: a program on a computer can't
 * time microseconds, its kernel can. Each has a driver that is switched on by a line of the boot settings.
 */

/** Probes on the one-wire bus: nine bytes of each stand in a file, measured anew whenever it is read. */
export const ONEWIRE = `"""One wire by the kernel's driver for it (w1-gpio, w1-therm): what a probe holds stands in a file."""
import os
import threading

ROOT = "/sys/bus/w1/devices"
# A reading takes as long as the probe measures: it is begun beside the program, and fetched when it is asked for.
reading = {}
last = {}


def crc(code):
    c = 0
    for v in code:
        c ^= v
        for _ in range(8):
            c = c >> 1 ^ 0x8C if c & 1 else c >> 1
    return c


def measure(folder):
    try:
        with open(os.path.join(ROOT, folder, "w1_slave")) as f:
            words = f.readline().split()
        last[folder] = bytes(int(w, 16) for w in words[:9])
    except (OSError, ValueError):
        last.pop(folder, None)


class OneWire:
    def __init__(self, pin):
        self.chosen = None
        self.answer = b""

    def folders(self):
        try:
            return sorted(d for d in os.listdir(ROOT) if d.startswith("28-"))
        except OSError:
            return []

    def code(self, folder):
        eight = bytes((0x28,)) + int(folder[3:], 16).to_bytes(6, "little")
        return eight + bytes((crc(eight),))

    def scan(self):
        return [self.code(d) for d in self.folders()]

    def reset(self):
        self.chosen = None
        return bool(self.folders())

    def write(self, data):
        data = bytes(data)
        folders = self.folders()
        if data[0] == 0x55:
            self.chosen = next((d for d in folders if self.code(d) == data[1:9]), None)
            data = data[9:]
        else:
            # All are called: that is one, or nobody knows whose answer it is.
            self.chosen = folders[0] if len(folders) == 1 else None
            data = data[1:]
        if self.chosen is None:
            raise OSError(19, "not one probe, but %d" % len(folders))
        busy = reading.get(self.chosen)
        if data[0] == 0x44 and not (busy and busy.is_alive()):
            reading[self.chosen] = threading.Thread(target=measure, args=(self.chosen,), daemon=True)
            reading[self.chosen].start()
        if data[0] == 0xBE:
            if busy and self.chosen not in last:
                busy.join(5)
            if self.chosen not in last:
                raise OSError(5, "no reading")
            self.answer = last[self.chosen]

    def readbyte(self):
        v, self.answer = self.answer[:1], self.answer[1:]
        return v[0] if v else 255
`;

/** The humidity sensor: the kernel's driver gives thousandths, the part's own five bytes are made of them. */
export const DHT = `"""A DHT22 by the kernel's driver for it (dht11, which knows both)."""
import os

ROOT = "/sys/bus/iio/devices"


class DHTBase:
    def __init__(self, pin):
        self.gpio = pin.id
        self.buf = bytearray(5)

    def folder(self):
        names = {}
        for d in sorted(os.listdir(ROOT)):
            try:
                with open(os.path.join(ROOT, d, "name")) as f:
                    names[d] = f.read().strip()
            except OSError:
                pass
        found = [d for d, n in names.items() if n.startswith("dht11")]
        mine = [d for d in found if names[d].endswith("@%x" % self.gpio)]
        if len(mine) == 1 or len(found) == 1:
            return os.path.join(ROOT, (mine or found)[0])
        raise OSError(19, "not one sensor of its kind, but %d" % len(found))

    def number(self, name):
        with open(os.path.join(self.folder(), name)) as f:
            return int(f.read())

    def measure(self):
        humid = round(self.number("in_humidityrelative_input") / 100)
        warm = round(self.number("in_temp_input") / 100)
        sign = 0x8000 if warm < 0 else 0
        four = humid.to_bytes(2, "big") + (abs(warm) | sign).to_bytes(2, "big")
        self.buf[:] = four + bytes((sum(four) & 255,))
`;
