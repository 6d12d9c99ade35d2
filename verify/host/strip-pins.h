// What strips are sent with, as the families' cores name it: a counter of the chip's cycles, and pins. A look at the counter takes
// some cycles and sees what the pins were told since the last one. With SCOPE set, what the wire does is written down, in nanoseconds.
#pragma once
inline volatile uint32_t pinsSet = 0, pinsClear = 0;
struct Scope {
  uint32_t cycles = 0, mhz = 1, edges = 0;
  void edge(int level) {
    if (getenv("SCOPE") && edges++ < 2000) printf("EDGE %d %.0f\n", level, cycles * 1000.0 / mhz);
  }
  uint32_t look() {
    cycles += 8;
    if (pinsSet) edge(1);
    if (pinsClear) edge(0);
    pinsSet = pinsClear = 0;
    return cycles;
  }
};
inline Scope &scope() { static Scope s; return s; }

#if defined(FAMILY_ESP8266) || defined(FAMILY_ESP32)
struct Esp {
  uint32_t getCpuFreqMHz() {
#ifdef FAMILY_ESP32
    return scope().mhz = 240;
#else
    return scope().mhz = 80;
#endif
  }
  uint32_t getCycleCount() { return scope().look(); }
};
inline Esp ESP;
#endif
#ifdef FAMILY_ESP8266
#define GPOS pinsSet
#define GPOC pinsClear
#endif
#ifdef FAMILY_ESP32
#define IRAM_ATTR
struct portMUX_TYPE { int owner; };
#define portMUX_INITIALIZER_UNLOCKED {0}
inline void portENTER_CRITICAL(portMUX_TYPE *) {}
inline void portEXIT_CRITICAL(portMUX_TYPE *) {}
#endif

#if defined(FAMILY_STM32) || defined(FAMILY_SAM3X) || defined(FAMILY_NRF52)
struct CycleCounter {
  volatile uint32_t CTRL;
  struct {
    operator uint32_t() const { return scope().look(); }
  } CYCCNT;
};
struct Debug { volatile uint32_t DEMCR; };
inline CycleCounter dwt{};
inline Debug coreDebug{};
#define DWT (&dwt)
#define CoreDebug (&coreDebug)
#define CoreDebug_DEMCR_TRCENA_Msk 0x01000000UL
#define DWT_CTRL_CYCCNTENA_Msk 1UL
#endif
#ifdef FAMILY_STM32
inline uint32_t SystemCoreClock = (scope().mhz = 72) * 1000000;
// One register: the low half sets, the high half clears.
struct BothWays {
  void operator=(uint32_t bits) { (bits & 0xFFFF ? pinsSet : pinsClear) = bits; }
};
struct GPIO_TypeDef { BothWays BSRR; };
inline GPIO_TypeDef *digitalPinToPort(uint8_t) { static GPIO_TypeDef port; return &port; }
inline uint32_t digitalPinToBitMask(uint8_t pin) { return 1UL << (pin & 15); }
#endif
#ifdef FAMILY_SAM3X
inline uint32_t SystemCoreClock = (scope().mhz = 84) * 1000000;
struct Pio { volatile uint32_t &PIO_SODR = pinsSet, &PIO_CODR = pinsClear; };
struct PinDescription { Pio *pPort; uint32_t ulPin; };
struct AnyPin {
  PinDescription operator[](uint8_t pin) const { static Pio port; return {&port, 1u << (pin & 31)}; }
};
inline AnyPin g_APinDescription;
#endif
#ifdef FAMILY_NRF52
inline uint32_t SystemCoreClock = (scope().mhz = 64) * 1000000;
struct NRF_GPIO_Type { volatile uint32_t &OUTSET = pinsSet, &OUTCLR = pinsClear; };
inline NRF_GPIO_Type *anyPort() { static NRF_GPIO_Type port; return &port; }
#define NRF_P0 anyPort()
#define NRF_P1 anyPort()
struct AnyPin {
  uint32_t operator[](uint8_t pin) const { return pin & 47; }
};
inline AnyPin g_ADigitalPinMap;
#endif
#ifdef FAMILY_IMXRT
inline uint32_t F_CPU_ACTUAL = (scope().mhz = 600) * 1000000;
#define ARM_DWT_CYCCNT (scope().look())
inline void digitalWriteFast(uint8_t, uint8_t level) { (level ? pinsSet : pinsClear) = 1; }
#endif
#ifdef FAMILY_SAMD
struct PortRegister { volatile uint32_t reg; };
struct PortGroup { PortRegister OUTSET, OUTCLR; };
struct PortBus { PortGroup Group[2]; };
inline PortBus portBus{};
#define PORT_IOBUS (&portBus)
struct PinDescription { int ulPort; uint32_t ulPin; };
struct AnyPin {
  PinDescription operator[](uint8_t pin) const { return {0, pin & 31u}; }
};
inline AnyPin g_APinDescription;
#endif
