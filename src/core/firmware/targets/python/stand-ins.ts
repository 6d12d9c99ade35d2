/** Pins and buses of a computer under the names that the programs use. */
export const MACHINE = `"""Pins by gpiozero, buses by smbus2, under the names of a microcontroller's machine module."""
from gpiozero import Device
from gpiozero.exc import PinFixedPull


def factory():
    if Device.pin_factory is None:
        Device.pin_factory = Device._default_pin_factory()
    return Device.pin_factory


class Pin:
    IN = 0
    OUT = 1
    PULL_UP = 1
    PULL_DOWN = 2

    def __init__(self, id, mode=-1, pull=None, value=None):
        self.id = id
        self.pin = None
        if mode != -1:
            self.init(mode, pull, value)

    def init(self, mode=-1, pull=None, value=None):
        self.pin = factory().pin(self.id)
        if mode == Pin.OUT:
            # The level comes before the direction: nothing twitches.
            self.pin.output_with_state(bool(value))
            return
        try:
            self.pin.input_with_pull({Pin.PULL_UP: "up", Pin.PULL_DOWN: "down"}.get(pull, "floating"))
        except PinFixedPull:
            # A resistor on the board decides there.
            self.pin.function = "input"

    def value(self, v=None):
        if v is None:
            return int(self.pin.state)
        self.pin.state = bool(v)


class PWM:
    """Pulses on a pin, timed by the system."""

    def __init__(self, pin, freq=50, duty_u16=0):
        self.pin = pin.pin
        self.pin.function = "output"
        self.freq(freq)
        self.duty_u16(duty_u16)

    def freq(self, hz):
        self.hz = hz
        self.pin.frequency = hz

    def duty_u16(self, v):
        self.pin.state = v / 65536

    def duty_ns(self, ns):
        self.pin.state = min(1, ns * self.hz / 1000000000)


class SoftSPI:
    """Bytes out on any pins, timed by the program; only in mode 0."""

    def __init__(self, baudrate=500000, polarity=0, phase=0, sck=None, mosi=None, miso=None):
        self.sck = sck
        self.mosi = mosi

    def write(self, data):
        for byte in data:
            for k in range(7, -1, -1):
                self.mosi.value(byte >> k & 1)
                self.sck.value(1)
                self.sck.value(0)


class UART:
    """A serial port of the computer. One that is not there, or not allowed, answers nothing, and is tried again."""

    def __init__(self, id, baudrate=9600, tx=None, rx=None, rxbuf=256):
        self.name = "/dev/serial0" if id == 0 else "/dev/ttyAMA%d" % id
        self.baudrate = baudrate
        self.fd = None
        self.have = bytearray()

    def open(self):
        import os
        import termios
        import tty

        if self.fd is None:
            fd = os.open(self.name, os.O_RDWR | os.O_NOCTTY | os.O_NONBLOCK)
            tty.setraw(fd)
            state = termios.tcgetattr(fd)
            state[4] = state[5] = getattr(termios, "B%d" % self.baudrate)
            termios.tcsetattr(fd, termios.TCSANOW, state)
            self.fd = fd
        return os

    def any(self):
        os = self.open()
        try:
            self.have += os.read(self.fd, 256)
        except BlockingIOError:
            pass
        return len(self.have)

    def read(self, n):
        got = bytes(self.have[:n])
        del self.have[:n]
        return got

    def write(self, data):
        self.open().write(self.fd, bytes(data))


class I2C:
    """A two-wire bus of the computer; its clock is a setting of the system, not of the program."""

    def __init__(self, id, sda=None, scl=None, freq=100000):
        from smbus2 import SMBus

        self.bus = SMBus(id)

    def writeto(self, address, data):
        from smbus2 import i2c_msg

        self.bus.i2c_rdwr(i2c_msg.write(address, list(data)))

    def readfrom(self, address, n):
        from smbus2 import i2c_msg

        got = i2c_msg.read(address, n)
        self.bus.i2c_rdwr(got)
        return bytes(list(got))

    def readfrom_mem(self, address, register, n):
        from smbus2 import i2c_msg

        got = i2c_msg.read(address, n)
        self.bus.i2c_rdwr(i2c_msg.write(address, [register]), got)
        return bytes(list(got))

    def writeto_mem(self, address, register, data):
        self.writeto(address, bytes((register,)) + bytes(data))

    def scan(self):
        found = []
        for address in range(8, 120):
            try:
                # Only called: some parts refuse to be read before they were asked something.
                self.bus.write_quick(address)
                found.append(address)
            except OSError:
                pass
        return found
`;

/** Time in milliseconds, as the programs count it. */
export const TICKS = `"""Milliseconds, under the names of a microcontroller's time module."""
import time


def ticks_ms():
    return int(time.monotonic() * 1000)


def ticks_diff(a, b):
    return a - b


def ticks_add(a, b):
    return a + b


def sleep_ms(ms):
    time.sleep(ms / 1000)


def sleep_us(us):
    time.sleep(us / 1000000)
`;
