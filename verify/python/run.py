"""Runs one generated program on this machine: pins by gpiozero's mock, buses by a bench that answers over stdin and stdout."""
import os
import sys

sys.path.insert(0, os.getcwd())
from gpiozero import Device
from gpiozero.pins.mock import MockFactory, MockPWMPin

Device.pin_factory = MockFactory(pin_class=MockPWMPin)
END = float(sys.argv[2])


class Done(Exception):
    pass


class Message:
    def __init__(self, address, data=None, n=0):
        self.address, self.data, self.n = address, data, n

    def __iter__(self):
        return iter(self.data)


class Messages:
    write = staticmethod(lambda address, data: Message(address, data))
    read = staticmethod(lambda address, n: Message(address, None, n))


def ask(*words):
    sys.stderr.write("?" + " ".join(str(w) for w in words) + "\n")
    sys.stderr.flush()
    return sys.stdin.readline().strip()


class Bus:
    def __init__(self, number):
        print("BUS", number)

    def write_quick(self, address):
        if ask("W", address, ticks.NOW, "") != "1":
            raise OSError(121, "Remote I/O error")

    def i2c_rdwr(self, *messages):
        for m in messages:
            if m.data is not None and m.n == 0:
                if ask("W", m.address, ticks.NOW, "".join("%02x" % b for b in m.data)) != "1":
                    raise OSError(121, "Remote I/O error")
            else:
                got = ask("R", m.address, ticks.NOW, m.n)
                if len(got) != 2 * m.n:
                    raise OSError(121, "Remote I/O error")
                m.data = [int(got[2 * i : 2 * i + 2], 16) for i in range(m.n)]


class smbus2:
    SMBus = Bus
    i2c_msg = Messages


sys.modules["smbus2"] = smbus2
import ticks

ticks.NOW = 0

# The serial port is a terminal of its own; at its other end the bench is asked what its part says, and told what it hears.
master, slave = os.openpty()
os.set_blocking(master, False)
PORT, NAME, plain_open = "/dev/serial0", os.ttyname(slave), os.open
opened = []


def port_open(path, *more, **named):
    if path == PORT:
        opened.append(path)
    return plain_open(NAME if path == PORT else path, *more, **named)


os.open = port_open


def serve():
    if not opened:
        return
    try:
        heard = os.read(master, 256)
    except BlockingIOError:
        heard = b""
    if heard:
        ask("T", 0, ticks.NOW, heard.hex())
    said = bytes.fromhex(ask("S", 0, ticks.NOW))
    if said:
        os.write(master, said)


def spend(ms):
    if (ticks.NOW + ms) // 20 > ticks.NOW // 20:
        serve()
    ticks.NOW += ms
    if ticks.NOW > END:
        raise Done()


def ticks_ms():
    spend(1)
    return ticks.NOW


ticks.ticks_ms = ticks_ms
ticks.sleep_ms = spend
ticks.sleep_us = lambda us: None
# What the kernel tells of parts that it reads itself stands in files: those of the bench.
for name in ("onewire", "dht"):
    if os.path.exists(name + ".py"):
        __import__(name).ROOT = os.path.join(os.getcwd(), "kernel", name)
# Nobody types: what the bench says is not for the program.
text = open(sys.argv[1]).read().replace("import select", "raise ImportError()")
try:
    exec(compile(text, sys.argv[1], "exec"), {"__name__": "__main__"})
except Done:
    print("CLOCK RAN OUT")
for number, pin in sorted(Device.pin_factory.pins.items()):
    print("PIN", number, pin.function, pin.pull, len(pin.states))
