/** A branch of a bus switch, used like a bus: opened for each message, closed again whatever comes of it. */
export const CHANNEL = {
  path: "lib/channel.py",
  text: `class Channel:
    """A branch of a bus switch, used like a bus: open for one message, then closed again."""

    def __init__(self, bus, address, channel):
        self.bus = bus
        self.address = address
        self.mask = bytes((1 << channel,))

    def through(self, work, *more):
        self.bus.writeto(self.address, self.mask)
        try:
            return work(*more)
        finally:
            self.bus.writeto(self.address, b"\\x00")

    def writeto(self, address, data):
        return self.through(self.bus.writeto, address, data)

    def readfrom(self, address, n):
        return self.through(self.bus.readfrom, address, n)

    def readfrom_mem(self, address, register, n):
        return self.through(self.bus.readfrom_mem, address, register, n)

    def writeto_mem(self, address, register, data):
        return self.through(self.bus.writeto_mem, address, register, data)

    def scan(self):
        try:
            return self.through(self.bus.scan)
        except OSError:
            return []
`,
};
