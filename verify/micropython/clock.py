# A clock that runs as fast as it is asked, and ends the program after a while.
class Done(Exception):
    pass


NOW = [0]
US = [0]
END = [3000]


# Called when time has gone on; while one of them tells of an event, that is the time in microseconds.
HOOKS = []
EVENT = [None]


def _add(ms):
    NOW[0] += ms
    for f in HOOKS:
        f()
    if NOW[0] > END[0]:
        raise Done()


def ticks_ms():
    if EVENT[0] is not None:
        return EVENT[0] // 1000
    _add(1)
    return NOW[0]


def ticks_us():
    return us() if EVENT[0] is None else EVENT[0]


def ticks_diff(a, b):
    return a - b


def ticks_add(a, b):
    return a + b


def sleep_ms(ms):
    _add(ms)


def us():
    return NOW[0] * 1000 + US[0]


def sleep_us(n):
    US[0] += n
    if US[0] >= 1000:
        _add(US[0] // 1000)
        US[0] %= 1000


class Stdin:
    """What somebody types: at each time in milliseconds a key."""

    def __init__(self):
        self.typed = []

    def read(self, n):
        return self.typed.pop(0)[1]


STDIN = Stdin()


class Select:
    POLLIN = 1

    class poll:
        def register(self, what, mask):
            pass

        def poll(self, wait):
            return STDIN.typed and STDIN.typed[0][0] <= NOW[0]
