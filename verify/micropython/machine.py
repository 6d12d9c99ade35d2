# A recording stand-in for the board's machine module: every pin, bus and pulse that a program asks for is written down.
import json

import clock

try:
    import js
except ImportError:
    js = None

LOG = []


def note(what):
    """Kept outside of the program's memory, in parcels: a long log in it makes every new object slow to find room for."""
    LOG.append(what)
    if js and len(LOG) >= 256:
        hand_over()


def hand_over():
    js.latticeLog(json.dumps(LOG))
    LOG.clear()


# Addresses at which a model of the bench answers.
MODELS = set()
# Pins on which a part of the bench hangs by lines of its own.
WIRED = set()
I2C_DEVICES = {}
ECHO_US = {}
LEVELS = {}
# By pin, or by address: what it is from a time on, in milliseconds.
LEVELS_AT = {}
# Pins on which nothing hangs: they follow the mains.
OPEN = set()
LATE = {}


class Pin:
    IN = 0
    OUT = 1
    OPEN_DRAIN = 2
    PULL_UP = 1
    PULL_DOWN = 2
    IRQ_FALLING = 2

    def __init__(self, id, mode=-1, pull=None, value=None):
        self.id = id
        self.mode = mode
        self.level = value if value is not None else (1 if pull == Pin.PULL_UP else 0)
        if mode != -1:
            note(("pin", id, "out" if mode == Pin.OUT else "in", pull))
            self._tell()

    def _tell(self):
        if self.id in WIRED:
            js.latticeLines.drive(self.id, self.level if self.mode == Pin.OUT else -1, clock.us())

    def init(self, mode=-1, pull=None, value=None):
        self.mode = mode
        if value is not None:
            self.level = value
        elif mode == Pin.IN:
            self.level = 1 if pull == Pin.PULL_UP else 0
        note(("pin", self.id, "out" if mode == Pin.OUT else "in", pull))
        self._tell()

    def irq(self, handler, trigger):
        note(("irq", self.id, trigger))

        def look():
            if self.id not in WIRED:
                return
            for at in js.latticeLines.falls(self.id, clock.us()).split():
                clock.EVENT[0] = int(float(at))
                handler(self)
            clock.EVENT[0] = None

        clock.HOOKS.append(look)

    def value(self, v=None):
        if v is None:
            if self.id in WIRED and self.mode == Pin.IN:
                return int(js.latticeLines.level(self.id, clock.us()))
            if self.id in OPEN:
                return clock.NOW[0] // 10 % 2
            for at, level in LEVELS_AT.get(self.id, ()):
                if clock.NOW[0] >= at:
                    return level
            return LEVELS.get(self.id, self.level)
        if v != self.level:
            note(("toggle", self.id, v))
        self.level = v
        self._tell()


class SoftSPI:
    """Bytes out on pins of the program's choice, in mode 0."""

    def __init__(self, baudrate=500000, polarity=0, phase=0, sck=None, mosi=None, miso=None):
        assert (polarity, phase) == (0, 0) and sck and mosi and miso
        sck.init(Pin.OUT, value=polarity)
        mosi.init(Pin.OUT)
        miso.init(Pin.IN)
        self.sck = sck
        self.mosi = mosi
        self.miso = miso
        note(("softspi", sck.id, mosi.id, miso.id))

    def readinto(self, buf, out=0):
        got = js.latticeLines.swapped(self.sck.id, self.mosi.id, self.miso.id, "%02x" % out, len(buf), clock.us())
        for i in range(len(buf)):
            buf[i] = int(got[2 * i : 2 * i + 2], 16)

    def write(self, data):
        if self.sck.id in WIRED:
            assert self.mosi.mode == Pin.OUT, "its line for data is an input"
            js.latticeLines.clocked(self.sck.id, self.mosi.id, "".join("%02x" % b for b in data), clock.us())
        self.mosi.level = data[-1] & 1


class I2S:
    """Sound as numbers: samples of the left half as far apart as the model says, the right half at rest."""

    RX = 0
    STEREO = 1

    def __init__(self, id, sck=None, ws=None, sd=None, mode=None, bits=0, format=None, rate=0, ibuf=0):
        assert (mode, bits, format) == (I2S.RX, 32, I2S.STEREO) and rate and ibuf
        note(("i2s", id, sck.id, ws.id, sd.id, rate))
        self.rate = rate

    def readinto(self, buf):
        n = len(buf) // 8
        clock.sleep_ms(n * 1000 // self.rate)
        got = js.latticeLines.read(3, clock.NOW[0])
        span = int(got, 16) if got else 0
        for i in range(n):
            sample = (span // 2 if i & 1 else span // 2 - span) << 8 if span else 0
            # What is behind the 24 bits is not told.
            for k, v in enumerate(((sample | (i & 255)) & 0xFFFFFFFF if span else 0, 0)):
                buf[8 * i + 4 * k : 8 * i + 4 * k + 4] = bytes((v & 255, v >> 8 & 255, v >> 16 & 255, v >> 24 & 255))
        return len(buf)


class UART:
    """A serial port: what the model has sent up to now, byte by byte."""

    def __init__(self, id, baudrate=9600, tx=None, rx=None, rxbuf=64):
        note(("uart", id, baudrate, tx and tx.id, rx and rx.id))
        self.waiting = b""

    def _hear(self):
        text = js.latticeLines.serial(clock.NOW[0])
        self.waiting += bytes(int(text[i : i + 2], 16) for i in range(0, len(text), 2))

    def any(self):
        if not self.waiting:
            self._hear()
        return len(self.waiting)

    def read(self, n):
        got, self.waiting = self.waiting[:n], self.waiting[n:]
        return got

    def write(self, data):
        js.latticeLines.write("".join("%02x" % b for b in data), clock.NOW[0])


class PWM:
    def __init__(self, pin, freq=None, duty_u16=None):
        self.id = pin.id
        self.hz = freq or 0
        self.duty = duty_u16 or 0
        note(("pwm", self.id, freq))

    def _tell(self):
        if self.id in WIRED:
            js.latticeLines.pulsed(self.id, self.hz, self.duty, clock.us())

    def freq(self, hz):
        self.hz = hz
        self._tell()

    def duty_u16(self, v):
        if v != self.duty:
            note(("duty", self.id, v))
        self.duty = v
        self._tell()

    def duty_ns(self, ns):
        self.duty = ns * self.hz / 1e9 * 65536
        self._tell()


def disable_irq():
    return 1


def enable_irq(state):
    pass


class ADC:
    ATTN_11DB = 3

    def __init__(self, pin, atten=None):
        self.id = pin if isinstance(pin, int) else pin.id
        note(("adc", self.id, atten))

    def read_u16(self):
        if self.id in WIRED:
            # Ten bits, as every board has them, of the board's 3.3 V; the bench gives millivolts of 5 V.
            return int(js.latticeLines.level(self.id, clock.us()) * 1023 // 5000) << 6
        return 32768 if self.id not in OPEN else 32768 + (clock.NOW[0] // 10 % 2) * 9000


class I2C:
    def __init__(self, id, sda=None, scl=None, freq=400000):
        note(("i2c", id, sda.id, scl.id, freq))
        self.devices = I2C_DEVICES

    def _device(self, address):
        if address in LATE and clock.NOW[0] >= LATE[address][0]:
            self.devices[address] = LATE.pop(address)[1]
        if address not in self.devices:
            raise OSError(5)
        return self.devices[address]

    def scan(self):
        return sorted(set(self.devices) | set(MODELS))

    def readfrom(self, address, n):
        if address in MODELS:
            got = js.latticeBus.read(address, n, clock.NOW[0])
            if len(got) != 2 * n:
                raise OSError(19)
            return bytes(int(got[2 * i : 2 * i + 2], 16) for i in range(n))
        self._device(address)
        return bytes(n)

    def readfrom_mem(self, address, reg, n):
        if address in MODELS:
            self.writeto(address, bytes((reg,)))
            return self.readfrom(address, n)
        d = self._device(address)
        return bytes(d.get(reg + i, 0) for i in range(n))

    def writeto_mem(self, address, reg, data):
        self._device(address)[reg] = data[0]

    def writeto(self, address, data):
        if address in MODELS:
            if not js.latticeBus.write(address, "".join("%02x" % b for b in data), clock.NOW[0]):
                raise OSError(19)
            return
        self._device(address)
        note(("write", address, len(data)))


def time_pulse_us(pin, level, timeout):
    if pin.id in WIRED:
        for until in (lambda v: v == level, lambda v: v != level):
            from_us = clock.us()
            while not until(pin.value()):
                if clock.us() - from_us > timeout:
                    return -1
                clock.sleep_us(4)
        return clock.us() - from_us
    return ECHO_US.get(pin.id, -2)


def bitstream(pin, encoding, timing, data):
    note(("bitstream", pin.id, len(data), max(data)))


def lightsleep(ms):
    """The chip sleeps; its own clock goes on."""
    note(("lightsleep", ms))
    clock.sleep_ms(ms)
