/** The same in MicroPython, whose port knows FAT: a card as blocks, and lines at the end of a file. */
export const CARD_LIB = `import os
import time


class Blocks:
    """A memory card as blocks of 512 bytes, for the file system; it was woken by its own program."""

    def __init__(self, spi, large):
        from machine import SoftSPI

        self.spi = spi
        self.large = large
        # Awake it takes more than it was woken with.
        self.fast = SoftSPI(baudrate=2000000, polarity=0, phase=0, sck=spi.sck, mosi=spi.mosi, miso=spi.miso)
        self.one = bytearray(1)

    def byte(self):
        self.fast.readinto(self.one, 255)
        return self.one[0]

    def command(self, command, at):
        self.fast.write(bytes((255, 0x40 | command, at >> 24 & 255, at >> 16 & 255, at >> 8 & 255, at & 255, 1)))
        for _ in range(9):
            r = self.byte()
            if r != 255:
                return r
        return 255

    def wait(self, until, ms):
        end = time.ticks_add(time.ticks_ms(), ms)
        while True:
            x = self.byte()
            if until(x):
                return x
            if time.ticks_diff(end, time.ticks_ms()) < 0:
                raise OSError(5)

    def readblocks(self, n, buf):
        for k in range(len(buf) // 512):
            self.spi.select(0)
            try:
                if self.command(17, (n + k) * (1 if self.large else 512)) != 0:
                    raise OSError(5)
                if self.wait(lambda x: x != 255, 200) != 0xFE:
                    raise OSError(5)
                self.fast.readinto(memoryview(buf)[k * 512 : k * 512 + 512], 255)
                self.fast.write(b"\\xff\\xff")
            finally:
                self.spi.select(1)
                self.byte()

    def writeblocks(self, n, buf):
        for k in range(len(buf) // 512):
            self.spi.select(0)
            try:
                if self.command(24, (n + k) * (1 if self.large else 512)) != 0:
                    raise OSError(5)
                self.fast.write(b"\\xff\\xfe")
                self.fast.write(memoryview(buf)[k * 512 : k * 512 + 512])
                self.fast.write(b"\\xff\\xff")
                if self.byte() & 31 != 5:
                    raise OSError(5)
                self.wait(lambda x: x == 255, 500)
            finally:
                self.spi.select(1)
                self.byte()

    def ioctl(self, op, arg):
        if op == 4:
            return self.sectors()
        if op == 5:
            return 512
        return 0

    def sectors(self):
        """How many blocks there are, from the card's own description."""
        self.spi.select(0)
        try:
            if self.command(9, 0) != 0 or self.wait(lambda x: x != 255, 200) != 0xFE:
                raise OSError(5)
            csd = bytes([self.byte() for _ in range(18)])
        finally:
            self.spi.select(1)
            self.byte()
        if csd[0] >> 6:
            return ((csd[7] & 63) << 16 | csd[8] << 8 | csd[9]) * 1024 + 1024
        size = (csd[6] & 3) << 10 | csd[7] << 2 | csd[8] >> 6
        scale = (csd[9] & 3) << 1 | csd[10] >> 7
        return (size + 1) << scale + 2 + (csd[5] & 15) - 9


class Log:
    """Lines at the end of LOG.CSV on a card."""

    def __init__(self, part, spi, head):
        self.part = part
        self.spi = spi
        self.head = head
        self.there = False

    def write(self, line):
        """True when it is on the card."""
        if not self.part.fresh:
            self.there = False
            return False
        try:
            if not self.there:
                try:
                    os.umount("/log")
                except OSError:
                    pass
                os.mount(Blocks(self.spi, self.part.card == 2), "/log")
                self.there = True
                with open("/log/LOG.CSV", "a") as f:
                    f.write(self.head + "\\r\\n")
            with open("/log/LOG.CSV", "a") as f:
                f.write(line + "\\r\\n")
            return True
        except OSError:
            self.there = False
            return False
`;
