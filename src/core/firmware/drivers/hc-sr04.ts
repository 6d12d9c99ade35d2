import type { Driver } from "../types";

/** Echo distance: a 10 µs pulse out, echo time back; 58 µs of echo are one centimetre there and back at 20 °C. */
export const hcSr04: Driver = {
  id: "hc-sr04",
  order: 30,
  sketch: {
    helpers: `// Echo time in microseconds, 0 when no echo came within 30 ms (about 5 m).
static uint32_t echoTime(uint8_t trig, uint8_t echo) {
  digitalWrite(trig, LOW);
  delayMicroseconds(4);
  digitalWrite(trig, HIGH);
  delayMicroseconds(10);
  digitalWrite(trig, LOW);
  return pulseIn(echo, HIGH, 30000UL);
}`,
    setup: (p) => `pinMode(${p.pin("TRIG")}, OUTPUT);\npinMode(${p.pin("ECHO")}, INPUT);`,
    bringup: (p) => `{
  uint32_t us = echoTime(${p.pin("TRIG")}, ${p.pin("ECHO")});
  Serial.print(F("YL1 echo ${p.ref} us="));
  Serial.print(us);
  Serial.print(F(" cm="));
  Serial.print(us / 58);
  Serial.print(' ');
  verdict(us >= 116 && us <= 23200);
}`,
    state: (p) => `static uint16_t ${p.id}_cm = 0;`,
    task: (p) => ({
      every_ms: 100,
      body: `${p.id}_cm = echoTime(${p.pin("TRIG")}, ${p.pin("ECHO")}) / 58;`,
    }),
    show: (p) => `snprintf(line, sizeof line, "${p.label.slice(0, 12)} %u cm", ${p.id}_cm);`,
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
        return self.time_us() // 58
`,
    },
    imports: ["from lib.echo import Echo"],
    setup: (p) => `${p.id} = Echo(pins.${p.pin("TRIG")}, pins.${p.pin("ECHO")})\n${p.id}_cm = [0]`,
    bringup: (p) => `us = ${p.id}.time_us()
print("YL1 echo ${p.ref} us=%d cm=%d %s" % (us, us // 58, judge(116 <= us <= 23200)))`,
    task: (p) => ({ every_ms: 100, body: `${p.id}_cm[0] = ${p.id}.cm()` }),
    show: (p) => `"${p.label.slice(0, 12)} %d cm" % ${p.id}_cm[0]`,
  },
};
