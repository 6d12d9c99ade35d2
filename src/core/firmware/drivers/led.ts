import type { Driver } from "../types";

/** An LED on an output pin, anode side driven. */
export const led: Driver = {
  id: "led",
  order: 40,
  sketch: {
    setup: (p) => `pinMode(${p.pin("A")}, OUTPUT);`,
    bringup: (p) => `for (uint8_t i = 0; i < 3; i++) {
  digitalWrite(${p.pin("A")}, HIGH);
  delay(150);
  digitalWrite(${p.pin("A")}, LOW);
  delay(150);
}
Serial.println(F("YL1 gpio ${p.ref} pin=${p.printed("A")} blink=3 info"));`,
    state: (p) => `static bool ${p.id}_on = false;`,
    task: (p) => ({
      every_ms: 500,
      body: `${p.id}_on = !${p.id}_on;\ndigitalWrite(${p.pin("A")}, ${p.id}_on ? HIGH : LOW);`,
    }),
  },
  micropython: {
    setup: (p) => `${p.id} = Pin(pins.${p.pin("A")}, Pin.OUT, value=0)`,
    bringup: (p) => `for _ in range(3):
    ${p.id}.value(1)
    time.sleep_ms(150)
    ${p.id}.value(0)
    time.sleep_ms(150)
print("YL1 gpio ${p.ref} pin=${p.printed("A")} blink=3 info")`,
    task: (p) => ({ every_ms: 500, body: `${p.id}.value(1 - ${p.id}.value())` }),
  },
};
