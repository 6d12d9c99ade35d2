/** A page without anything that can be pressed: everybody on the network may read it, nobody can switch anything. */
export const PAGE_LIB = `import json
import network
import socket


def plain(text):
    """Text as it stands on a page."""
    return text.replace("&", "&amp;").replace("<", "&lt;").replace(">", "&gt;").replace('"', "&quot;")


class Page:
    """Readings on the local network: / is a page, /json the same for programs. Nothing waits for the network."""

    def __init__(self, title):
        self.title = title
        self.server = None
        self.wlan = None
        try:
            import wlan

            if wlan.NAME:
                self.wlan = network.WLAN(network.STA_IF)
                self.wlan.active(True)
                self.wlan.connect(wlan.NAME, wlan.PASSWORD)
        except (ImportError, AttributeError):
            pass
        if self.wlan is None:
            print("no local network: copy wlan.example.py to wlan.py and fill it in")

    def close(self):
        if self.server:
            self.server.close()
        self.server = None

    def turn(self, readings):
        """Answers whoever asks; gone and come back, the network is taken back."""
        if self.wlan is None:
            return
        try:
            if not self.wlan.isconnected():
                self.close()
                return
            if self.server is None:
                self.server = socket.socket()
                self.server.setsockopt(socket.SOL_SOCKET, socket.SO_REUSEADDR, 1)
                self.server.bind(("0.0.0.0", 80))
                self.server.listen(2)
                self.server.setblocking(False)
                print("page http://%s/" % self.wlan.ifconfig()[0])
            try:
                who = self.server.accept()[0]
            except OSError:
                return
            try:
                who.settimeout(0.2)
                asked = who.recv(512).split(b" ")
                path = asked[1] if len(asked) > 1 else b"/"
                if path == b"/json":
                    self.say(who, "200 OK", "application/json", json.dumps({n: v for n, v, _ in readings()}))
                elif path == b"/":
                    self.say(who, "200 OK", "text/html; charset=utf-8", self.html(readings()))
                else:
                    self.say(who, "404 Not Found", "text/plain", "nothing here; / and /json are\\n")
            finally:
                who.close()
        except OSError:
            self.close()

    def say(self, who, status, kind, body):
        head = "HTTP/1.0 %s\\r\\nContent-Type: %s\\r\\nConnection: close\\r\\n\\r\\n" % (status, kind)
        data = (head + body).encode()
        while data:
            data = data[who.send(data) :]

    def html(self, readings):
        rows = "".join(
            "<tr><th scope=row>%s</th><td>%s %s</td></tr>" % (plain(n), "--" if v is None else plain(v), plain(u))
            for n, v, u in readings
        )
        return (
            "<!doctype html><html lang=en><meta charset=utf-8><meta name=viewport content='width=device-width'>"
            "<meta http-equiv=refresh content=10><title>%s</title><h1>%s</h1><table>%s</table></html>"
            % (plain(self.title), plain(self.title), rows)
        )
`;
