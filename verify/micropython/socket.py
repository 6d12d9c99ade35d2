# A stand-in for the network: who asks what, at which millisecond; what was answered is written down.
import clock

SOL_SOCKET = 1
SO_REUSEADDR = 2
ASKS = []


class Who:
    def __init__(self, text):
        self.text = text
        self.got = b""

    def settimeout(self, s):
        pass

    def recv(self, n):
        if self.text is None:
            raise OSError(110)
        return self.text.encode()[:n]

    def send(self, data):
        # Not all at once, as it is with small buffers.
        part = bytes(data[:100])
        self.got += part
        return len(part)

    def close(self):
        print("ANSWER", self.got.decode().replace("\r\n", "|"))


class socket:
    def __init__(self):
        pass

    def setsockopt(self, a, b, c):
        pass

    def bind(self, at):
        assert at[1] == 80

    def listen(self, n):
        pass

    def setblocking(self, on):
        assert not on

    def accept(self):
        if ASKS and ASKS[0][0] <= clock.NOW[0]:
            return (Who(ASKS.pop(0)[1]), ("192.0.2.9", 1))
        raise OSError(11)

    def close(self):
        print("CLOSED")
