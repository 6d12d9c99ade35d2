# A stand-in for the board's radio: the network is there, or not, from a time on in milliseconds.
import clock

STA_IF = 0
THERE_AT = [(0, True)]
ASKED = []


class WLAN:
    def __init__(self, which):
        assert which == STA_IF

    def active(self, on):
        pass

    def connect(self, name, password):
        ASKED.append((name, password))
        print("CONNECT", name, password)

    def isconnected(self):
        for at, there in THERE_AT:
            if clock.NOW[0] >= at:
                return there
        return False

    def ifconfig(self):
        return ("192.0.2.7", "255.255.255.0", "192.0.2.1", "192.0.2.1")
