/**
 * A serial port on two plain pins: the program times it. What comes is told from the moments at which the line changes, so that
 * nothing waits for it; what goes out takes its time, a millisecond a byte at 9600 baud.
 */
export const SOFT_PORT = `// A serial port on plain pins. 255: no such line. Bytes are put together from the moments at which the line changed.
class SoftPort : public Stream {
  uint8_t rx, tx;
  uint16_t bit_us;
  bool was, busy;
  uint8_t at, shape;
  uint32_t began;
  volatile uint8_t list[64], first, last;
  // The line stood as it was up to the k-th bit: 0 is the start, 1 to 8 the byte, 9 the stop.
  void IRAM_ATTR upTo(uint8_t k) {
    for (; at < k && at < 9; at++)
      if (at && was) shape |= 1 << (at - 1);
    if (k < 9) return;
    busy = false;
    uint8_t next = (last + 1) & 63;
    if (next == first) return;
    list[last] = shape;
    last = next;
  }

 public:
  bool hears;
  SoftPort(uint8_t rxPin, uint8_t txPin, uint32_t baud)
      : rx(rxPin), tx(txPin), bit_us((1000000UL + baud / 2) / baud), was(true), busy(false), at(0), shape(0), began(0), first(0), last(0), hears(true) {}
  void begin() {
    if (tx != 255) {
      digitalWrite(tx, HIGH);
      pinMode(tx, OUTPUT);
    }
    // No pull-up of the chip's own: the part may run at less than the chip.
    if (rx != 255) pinMode(rx, INPUT);
  }
  void IRAM_ATTR edge() {
    bool now = digitalRead(rx);
    if (now == was) return;
    uint32_t t = micros();
    if (busy) {
      uint32_t gone = t - began;
      upTo(gone >= 10UL * bit_us ? 10 : ((uint16_t)gone + bit_us / 2) / bit_us);
    }
    if (!busy && !now) {
      busy = true;
      began = t;
      at = shape = 0;
    }
    was = now;
  }
  int available() {
    // A byte that ends high has no change at its end.
    noInterrupts();
    if (busy && micros() - began >= 10UL * bit_us) upTo(10);
    interrupts();
    return (last - first) & 63;
  }
  int peek() { return available() ? list[first] : -1; }
  int read() {
    if (!available()) return -1;
    uint8_t c = list[first];
    first = (first + 1) & 63;
    return c;
  }
  size_t write(uint8_t c) {
    if (tx == 255) return 0;
    uint16_t bits = (uint16_t)c << 1 | 0x200;
    uint32_t from = micros();
    for (uint8_t i = 1; i <= 10; i++, bits >>= 1) {
      digitalWrite(tx, bits & 1 ? HIGH : LOW);
      while (micros() - from < (uint32_t)i * bit_us) {
      }
    }
    return 1;
  }
  using Print::write;
  void flush() {}
};`;

/** Faster than this the moments of change are not told apart surely, baud. */
export const SOFT_MOST = { avr: 9600, other: 19_200 };
