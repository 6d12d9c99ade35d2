/** Sends a strip's bytes, by family: the timing is the chip's own. */
const AVR = `// Sends one strip's bytes with the timing of the WS2812B at 16 MHz: 20 cycles a bit, high for 6 or 13 of them.
static void stripSend(uint8_t pin, const uint8_t *bytes, uint16_t n) {
  volatile uint8_t *port = portOutputRegister(digitalPinToPort(pin));
  uint8_t mask = digitalPinToBitMask(pin);
  uint8_t sreg = SREG;
  uint8_t high = *port | mask;
  uint8_t low = *port & ~mask;
  while (n--) {
    uint8_t byte = *bytes++;
    uint8_t bits = 8;
    cli();
    asm volatile(
        "1: st %a[port], %[high]\\n\\t"
        "nop\\n\\tnop\\n\\tnop\\n\\t"
        "sbrs %[byte], 7\\n\\t"
        "st %a[port], %[low]\\n\\t"
        "nop\\n\\tnop\\n\\tnop\\n\\tnop\\n\\tnop\\n\\t"
        "st %a[port], %[low]\\n\\t"
        "lsl %[byte]\\n\\t"
        "nop\\n\\t"
        "dec %[bits]\\n\\t"
        "brne 1b\\n\\t"
        : [byte] "+r"(byte), [bits] "+r"(bits)
        : [port] "e"(port), [high] "r"(high), [low] "r"(low));
    SREG = sreg;  // a tick of the clock that came meanwhile is served between two bytes: no time is lost
  }
  delayMicroseconds(300);
}`;

const RP2040 = `#include <hardware/clocks.h>
#include <hardware/gpio.h>
#include <hardware/sync.h>

// Sends one strip's bytes with the timing of the WS2812B: 0.4 or 0.8 us high in a bit of 1.25 us.
static void stripSend(uint8_t pin, const uint8_t *bytes, uint16_t n) {
  uint32_t mhz = clock_get_hz(clk_sys) / 1000000;
  uint32_t irq = save_and_disable_interrupts();
  while (n--) {
    uint8_t byte = *bytes++;
    for (uint8_t bit = 0; bit < 8; bit++, byte <<= 1) {
      uint32_t high = (byte & 0x80 ? 8 : 4) * mhz / 10;
      gpio_put(pin, 1);
      busy_wait_at_least_cycles(high > 10 ? high - 10 : 1);
      gpio_put(pin, 0);
      busy_wait_at_least_cycles(12 * mhz / 10 - high > 20 ? 12 * mhz / 10 - high - 20 : 1);
    }
  }
  restore_interrupts(irq);
  delayMicroseconds(300);
}`;

const ESP = (
  cycles: string,
  high: string,
  low: string,
) => `// Sends one strip's bytes with the timing of the WS2812B: 0.4 or 0.8 us high in a bit of 1.25 us.
static void stripSend(uint8_t pin, const uint8_t *bytes, uint16_t n) {
  uint32_t mhz = ESP.getCpuFreqMHz();
  noInterrupts();
  while (n--) {
    uint8_t byte = *bytes++;
    for (uint8_t bit = 0; bit < 8; bit++, byte <<= 1) {
      uint32_t from = ${cycles};
      uint32_t on = (byte & 0x80 ? 8 : 4) * mhz / 10;
      ${high}
      while (${cycles} - from < on) {
      }
      ${low}
      while (${cycles} - from < 5 * mhz / 4) {
      }
    }
  }
  interrupts();
  delayMicroseconds(300);
}`;

/** A family that is not here has no sender of ours: what stands for it is said where the part is left out. */
export const STRIP_SEND: Record<string, { code: string }> = {
  avr: { code: AVR },
  rp2040: { code: RP2040 },
  rp2350: { code: RP2040 },
  esp8266: { code: ESP("ESP.getCycleCount()", "GPOS = 1UL << pin;", "GPOC = 1UL << pin;") },
};
