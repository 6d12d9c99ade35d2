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

/** Highs that a counter of the chip's cycles times: written a little early, since a look at the counter comes a little late. */
const COUNTED = (o: {
  includes?: string;
  attribute?: string;
  before: readonly string[];
  now: string;
  high: string;
  low: string;
  stop: string;
  go: string;
}) => `${o.includes ? `${o.includes}\n\n` : ""}// Sends one strip's bytes with the timing of the WS2812B: 0.4 or 0.8 us high in a bit of 1.25 us, a little of it is the looking.
static void ${o.attribute ?? ""}stripSend(uint8_t pin, const uint8_t *bytes, uint16_t n) {
${o.before.map((l) => `  ${l}`).join("\n")}
  const uint32_t zero = 35 * mhz / 100, one = 75 * mhz / 100, bit_long = 125 * mhz / 100;
  ${o.stop}
  while (n--) {
    uint8_t byte = *bytes++;
    for (uint8_t bit = 0; bit < 8; bit++, byte <<= 1) {
      const uint32_t on = byte & 0x80 ? one : zero, from = ${o.now};
      ${o.high}
      while (${o.now} - from < on) {
      }
      ${o.low}
      while (${o.now} - from < bit_long) {
      }
    }
  }
  ${o.go}
  delayMicroseconds(300);
}`;
const QUIET = { stop: "noInterrupts();", go: "interrupts();" };

const ESP8266 = COUNTED({
  ...QUIET,
  before: ["const uint32_t mhz = ESP.getCpuFreqMHz();"],
  now: "ESP.getCycleCount()",
  high: "GPOS = 1UL << pin;",
  low: "GPOC = 1UL << pin;",
});

/** From memory that never waits for the flash; the other core goes on. Pins from 32 on have registers of their own, where the chip has such pins. */
const ESP32 = COUNTED({
  includes: "#include <soc/gpio_reg.h>",
  attribute: "IRAM_ATTR ",
  before: [
    "static portMUX_TYPE quiet = portMUX_INITIALIZER_UNLOCKED;",
    "const uint32_t mhz = ESP.getCpuFreqMHz(), mask = 1UL << (pin & 31);",
    "volatile uint32_t *set = (volatile uint32_t *)GPIO_OUT_W1TS_REG, *clear = (volatile uint32_t *)GPIO_OUT_W1TC_REG;",
    "#ifdef GPIO_OUT1_W1TS_REG",
    "if (pin > 31) set = (volatile uint32_t *)GPIO_OUT1_W1TS_REG, clear = (volatile uint32_t *)GPIO_OUT1_W1TC_REG;",
    "#endif",
  ],
  now: "ESP.getCycleCount()",
  high: "*set = mask;",
  low: "*clear = mask;",
  stop: "portENTER_CRITICAL(&quiet);",
  go: "portEXIT_CRITICAL(&quiet);",
});

/** The counter that Cortex-M3 and larger have beside their debugger. */
const ARM = (before: readonly string[], high: string, low: string) =>
  COUNTED({
    ...QUIET,
    before: [
      "CoreDebug->DEMCR |= CoreDebug_DEMCR_TRCENA_Msk;",
      "DWT->CTRL |= DWT_CTRL_CYCCNTENA_Msk;",
      "const uint32_t mhz = SystemCoreClock / 1000000;",
      ...before,
    ],
    now: "DWT->CYCCNT",
    high,
    low,
  });
const STM32 = ARM(
  ["GPIO_TypeDef *port = digitalPinToPort(pin);", "const uint32_t mask = digitalPinToBitMask(pin);"],
  "port->BSRR = mask;",
  "port->BSRR = mask << 16;",
);
const SAM3X = ARM(
  ["Pio *port = g_APinDescription[pin].pPort;", "const uint32_t mask = g_APinDescription[pin].ulPin;"],
  "port->PIO_SODR = mask;",
  "port->PIO_CODR = mask;",
);
const NRF52 = ARM(
  [
    "#ifdef ARDUINO_ARCH_MBED",
    "const uint32_t at = digitalPinToPinName(pin);",
    "#else",
    "const uint32_t at = g_ADigitalPinMap[pin];",
    "#endif",
    "NRF_GPIO_Type *port = at & 32 ? NRF_P1 : NRF_P0;",
    "const uint32_t mask = 1UL << (at & 31);",
  ],
  "port->OUTSET = mask;",
  "port->OUTCLR = mask;",
);
/** Its core keeps the counter running. */
const IMXRT = COUNTED({
  ...QUIET,
  before: ["const uint32_t mhz = F_CPU_ACTUAL / 1000000;"],
  now: "ARM_DWT_CYCCNT",
  high: "digitalWriteFast(pin, HIGH);",
  low: "digitalWriteFast(pin, LOW);",
});

/** A Cortex-M0+ at 48 MHz has no such counter: its cycles are counted here, a store to the pins by their own bus is one. */
const SAMD = `// Sends one strip's bytes with the timing of the WS2812B at 48 MHz: high for 15 or 34 cycles of 58.
static void stripSend(uint8_t pin, const uint8_t *bytes, uint16_t n) {
  volatile PortGroup *port = &PORT_IOBUS->Group[g_APinDescription[pin].ulPort];
  const uint32_t mask = 1UL << g_APinDescription[pin].ulPin;
  noInterrupts();
  while (n--) {
    // The highest bit of the byte on top of the word: it falls into the carry first.
    uint32_t byte = (uint32_t)*bytes++ << 24, bits = 8, wait;
    asm volatile(
        ".syntax unified\\n\\t"
        "1: str %[mask], [%[set]]\\n\\t"
        "movs %[wait], #4\\n\\t"
        "2: subs %[wait], #1\\n\\t"
        "bne 2b\\n\\t"
        "lsls %[byte], %[byte], #1\\n\\t"
        "bcs 3f\\n\\t"
        "str %[mask], [%[clear]]\\n\\t"
        "3: movs %[wait], #6\\n\\t"
        "4: subs %[wait], #1\\n\\t"
        "bne 4b\\n\\t"
        "str %[mask], [%[clear]]\\n\\t"
        "movs %[wait], #7\\n\\t"
        "5: subs %[wait], #1\\n\\t"
        "bne 5b\\n\\t"
        "subs %[bits], #1\\n\\t"
        "bne 1b\\n\\t"
        : [byte] "+l"(byte), [bits] "+l"(bits), [wait] "=&l"(wait)
        : [mask] "l"(mask), [set] "l"(&port->OUTSET.reg), [clear] "l"(&port->OUTCLR.reg)
        : "cc", "memory");
  }
  interrupts();
  delayMicroseconds(300);
}`;

/** A family that is not here has no sender of ours: what stands for it is said where the part is left out. */
export const STRIP_SEND: Record<string, { code: string }> = {
  avr: { code: AVR },
  rp2040: { code: RP2040 },
  rp2350: { code: RP2040 },
  esp8266: { code: ESP8266 },
  esp32: { code: ESP32 },
  stm32: { code: STM32 },
  sam3x: { code: SAM3X },
  nrf52: { code: NRF52 },
  imxrt: { code: IMXRT },
  samd: { code: SAMD },
};
