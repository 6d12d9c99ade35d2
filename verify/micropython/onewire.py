# A stand-in for the port's module: bytes go to the model, the slots are the port's own business.
import clock
import js


class OneWire:
    def __init__(self, pin):
        pass

    def reset(self):
        # Nobody answers where nothing hangs.
        return bool(js.latticeLines.there())

    def scan(self):
        found = js.latticeLines.codes().split()
        return [bytearray(int(c[i : i + 2], 16) for i in range(0, 16, 2)) for c in found]

    def write(self, data):
        js.latticeLines.write("".join("%02x" % b for b in data), clock.NOW[0])
        self.got = None

    def readbyte(self):
        if self.got is None:
            text = js.latticeLines.read(9, clock.NOW[0])
            self.got = [int(text[i : i + 2], 16) for i in range(0, len(text), 2)]
        return self.got.pop(0)
