import type { Driver } from "../types";
import { EDGES } from "./edges";

/** Echo distance: a 10 µs pulse out, echo time back; 58 µs of echo are one centimetre there and back at 20 °C. */
export const hcSr04: Driver = {
  id: "hc-sr04",
  order: 30,
  unfit: (p) =>
    p.target === "python" ? { kind: "capability", why: "a computer can't time its echo surely enough" } : null,
  gives: () => [{ name: "cm", word: "", unit: "cm", digits: 0, room: [2, 400] }],
  rules: {
    sketch: { value: (p) => `${p.id}_cm`, fresh: (p) => `${p.id}_cm` },
    micropython: { value: (p) => `${p.id}_cm[0]`, fresh: (p) => `${p.id}_cm[0]` },
  },
  sketch: {
    helpersFor: () => [
      EDGES,
      `// Distance by echo. Its length is timed by interrupts where the pin has one, so that nothing waits for it.
struct Echo {
  uint8_t trig, echo;
  bool timed;
  volatile bool was;
  volatile uint32_t rose, us;
  void IRAM_ATTR edge() {
    bool now = digitalRead(echo);
    if (now == was) return;
    was = now;
    if (now) rose = micros();
    else us = micros() - rose;
  }
  void begin();
  void pulse() {
    digitalWrite(trig, LOW);
    delayMicroseconds(4);
    digitalWrite(trig, HIGH);
    delayMicroseconds(10);
    digitalWrite(trig, LOW);
  }
  // Echo time in microseconds, 0 when no echo came within 30 ms (about 5 m); waits for it.
  uint32_t wait() {
    pulse();
    return pulseIn(echo, HIGH, 30000UL);
  }
  // Centimetres of the last pulse, 0 when none came back; sends the next one.
  uint16_t turn() {
    noInterrupts();
    uint32_t t = us;
    us = 0;
    interrupts();
    if (timed) pulse();
    else t = wait();
    return t >= 116 && t <= 23200 ? t / 58 : 0;
  }
};

static Echo *echoes[8];
static uint8_t echoCount = 0;
static void IRAM_ATTR echoEdges() {
  for (uint8_t i = 0; i < echoCount; i++) echoes[i]->edge();
}
void Echo::begin() {
  pinMode(trig, OUTPUT);
  pinMode(echo, INPUT);
  if (echoCount == 8) return;
  echoes[echoCount++] = this;
  timed = watchEdges(echo, echoEdges);
}`,
    ],
    globals: (p) => `static Echo ${p.id} = {${p.pin("TRIG")}, ${p.pin("ECHO")}, false, false, 0, 0};`,
    setup: (p) => `${p.id}.begin();`,
    bringup: (p) => `{
  uint32_t us = ${p.id}.wait();
  Serial.print(F("YL1 echo ${p.ref} us="));
  Serial.print(us);
  Serial.print(F(" cm="));
  Serial.print(us / 58);
  Serial.print(' ');
  verdict(us >= 116 && us <= 23200);
}`,
    state: (p) => `static uint16_t ${p.id}_cm = 0;`,
    task: (p) => ({ every_ms: 100, body: `${p.id}_cm = ${p.id}.turn();` }),
    show: (p) => `if (${p.id}_cm) snprintf(line, sizeof line, "${p.label.slice(0, 12)} %u cm", ${p.id}_cm);
else snprintf(line, sizeof line, "${p.label.slice(0, 12)} -- cm");`,
  },
  micropython: {
    lib: {
      path: "lib/echo.py",
      text: `import machine
import time


class Echo:
    """Distance by echo: a 10 us pulse out, the echo's length back."""

    def __init__(self, trig, echo):
        self.trig = machine.Pin(trig, machine.Pin.OUT, value=0)
        self.echo = machine.Pin(echo, machine.Pin.IN)

    def time_us(self):
        """Echo time in microseconds; 0 when none came within 30 ms."""
        self.trig.value(0)
        time.sleep_us(4)
        self.trig.value(1)
        time.sleep_us(10)
        self.trig.value(0)
        us = machine.time_pulse_us(self.echo, 1, 30000)
        return us if us > 0 else 0

    def cm(self):
        """Centimetres; 0 when no echo came, or one that can't be."""
        us = self.time_us()
        return us // 58 if 116 <= us <= 23200 else 0
`,
    },
    imports: ["from lib.echo import Echo"],
    setup: (p) => `${p.id} = Echo(pins.${p.pin("TRIG")}, pins.${p.pin("ECHO")})\n${p.id}_cm = [0]`,
    bringup: (p) => `us = ${p.id}.time_us()
print("YL1 echo ${p.ref} us=%d cm=%d %s" % (us, us // 58, judge(116 <= us <= 23200)))`,
    task: (p) => ({ every_ms: 100, body: `${p.id}_cm[0] = ${p.id}.cm()` }),
    show: (p) => `"${p.label.slice(0, 12)} %s cm" % (${p.id}_cm[0] or "--")`,
  },
};
