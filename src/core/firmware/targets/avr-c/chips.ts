/** What a chip's headers call its timer, port and converter, and what its programmer must be told; from its data sheet. */
export interface Chip {
  /** For the compiler, and for the programmer's tool. */
  mcu: string;
  part: string;
  /** Fuses for its own oscillator at full speed: only those that the clock needs, never the one that takes the reset pin away. */
  fuses: Readonly<Record<string, string>>;
  fusesSay: string;
  /** A compare match of timer 0 every millisecond, from the clock over 64. */
  timer: string;
  vector: string;
  /** True while timer 0 has come to its end and that is not counted yet. */
  pending: string;
  /** Its serial port at 9600 baud; null: one is made of a free pin. */
  uart: { begin: string; send: string } | null;
  /** What its watchdog is called, where it can wake the chip without a reset. */
  watchdog: { register: string; wakes: string } | null;
  /** The supply as the converter's reference. */
  admux: string;
}

const timer0 = (mask: string) => `TCCR0A = _BV(WGM01);
TCCR0B = _BV(CS01) | _BV(CS00);
OCR0A = F_CPU / 64 / 1000 - 1;
${mask} |= _BV(OCIE0A);`;

export const CHIPS: Readonly<Record<string, Chip>> = {
  ATtiny13A: {
    mcu: "attiny13a",
    part: "t13",
    fuses: { lfuse: "0x7a" },
    fusesSay: "its own 9.6 MHz, not divided by 8",
    timer: timer0("TIMSK0"),
    vector: "TIM0_COMPA_vect",
    pending: "TIFR0 & _BV(OCF0A)",
    uart: null,
    watchdog: { register: "WDTCR", wakes: "WDTIE" },
    admux: "0",
  },
  ATtiny84: {
    mcu: "attiny84",
    part: "t84",
    fuses: { lfuse: "0xe2" },
    fusesSay: "its own 8 MHz, not divided by 8",
    timer: timer0("TIMSK0"),
    vector: "TIM0_COMPA_vect",
    pending: "TIFR0 & _BV(OCF0A)",
    uart: null,
    watchdog: { register: "WDTCSR", wakes: "WDIE" },
    admux: "0",
  },
  ATtiny85: {
    mcu: "attiny85",
    part: "t85",
    fuses: { lfuse: "0xe2" },
    fusesSay: "its own 8 MHz, not divided by 8",
    timer: timer0("TIMSK"),
    vector: "TIMER0_COMPA_vect",
    pending: "TIFR & _BV(OCF0A)",
    uart: null,
    watchdog: { register: "WDTCR", wakes: "WDIE" },
    admux: "0",
  },
  ATmega328P: {
    mcu: "atmega328p",
    part: "m328p",
    fuses: { lfuse: "0xe2" },
    fusesSay: "its own 8 MHz, not divided by 8",
    timer: timer0("TIMSK0"),
    vector: "TIMER0_COMPA_vect",
    pending: "TIFR0 & _BV(OCF0A)",
    uart: {
      begin: "UCSR0A = _BV(U2X0);\nUBRR0 = F_CPU / 8 / 9600 - 1;\nUCSR0B = _BV(TXEN0);",
      send: "while (!(UCSR0A & _BV(UDRE0))) {\n}\nUDR0 = c;",
    },
    watchdog: { register: "WDTCSR", wakes: "WDIE" },
    admux: "_BV(REFS0)",
  },
  ATmega32A: {
    mcu: "atmega32a",
    part: "m32",
    // The second one gives PC2 to PC5 back, which its debug port holds as delivered.
    fuses: { lfuse: "0xe4", hfuse: "0xd9" },
    fusesSay: "its own 8 MHz, and the debug port off so that PC2 to PC5 are pins",
    timer: "TCCR0 = _BV(WGM01) | _BV(CS01) | _BV(CS00);\nOCR0 = F_CPU / 64 / 1000 - 1;\nTIMSK |= _BV(OCIE0);",
    vector: "TIMER0_COMP_vect",
    pending: "TIFR & _BV(OCF0)",
    uart: {
      begin: "UCSRA = _BV(U2X);\nUBRRL = F_CPU / 8 / 9600 - 1;\nUCSRB = _BV(TXEN);",
      send: "while (!(UCSRA & _BV(UDRE))) {\n}\nUDR = c;",
    },
    watchdog: null,
    admux: "_BV(REFS0)",
  },
};
