/** Half a wave each time timer 1 comes round; by chip, from its data sheet. A chip without a second timer makes no tones. */
const WIDE = (vector: string, mask: string) => ({
  vector,
  stop: `${mask} &= (uint8_t)~_BV(OCIE1A);`,
  // Sixteen bits, the clock over 8: from 8 hertz at 8 MHz, 16 at 16 MHz.
  start: `uint32_t half = F_CPU / 16 / hz;
  if (half > 65535) half = 65535;
  TCCR1A = 0;
  TCCR1B = _BV(WGM12) | _BV(CS11);
  OCR1A = half - 1;
  TCNT1 = 0;
  ${mask} |= _BV(OCIE1A);`,
});
const NARROW = {
  vector: "TIMER1_COMPA_vect",
  stop: "TIMSK &= (uint8_t)~_BV(OCIE1A);",
  // Eight bits: the least divider that half a wave fits in.
  start: `uint32_t half = F_CPU / 2 / hz;
  uint8_t divider = 1;
  while (half > 256 && divider < 15) half >>= 1, divider++;
  if (half > 256) half = 256;
  TCCR1 = _BV(CTC1) | divider;
  OCR1C = OCR1A = half - 1;
  TCNT1 = 0;
  TIMSK |= _BV(OCIE1A);`,
};
const TIMERS: Readonly<Record<string, typeof NARROW>> = {
  ATmega328P: WIDE("TIMER1_COMPA_vect", "TIMSK1"),
  ATmega32A: WIDE("TIMER1_COMPA_vect", "TIMSK"),
  ATtiny84: WIDE("TIM1_COMPA_vect", "TIMSK1"),
  ATtiny85: NARROW,
};

export const makesTones = (chip: string): boolean => chip in TIMERS;

/** `tone` and `noTone` of the sketches in plain C: one tone at a time, on any pin. */
export function tonesInPlainC(chip: string): string {
  const { vector, start, stop } = TIMERS[chip]!;
  return `// A tone on a pin, one at a time: timer 1 turns its level round after every half wave.
static volatile uint8_t *tonePort;
static uint8_t toneBit;
ISR(${vector}) { *tonePort ^= toneBit; }
static void __attribute__((unused)) noTone(uint8_t at) {
  if (tonePort != portOf(at, 2) || toneBit != bitOf(at)) return;
  ${stop}
  digitalWrite(at, LOW);
}
static void __attribute__((unused)) tone(uint8_t at, uint16_t hz) {
  ${stop}
  if (tonePort) *tonePort &= (uint8_t)~toneBit;
  tonePort = portOf(at, 2);
  toneBit = bitOf(at);
  ${start}
}`;
}
