// The part of the board API that generated sketches use, for compiling them on any machine. Every call is written down.
#pragma once
#include <math.h>
#include <stdint.h>
#include <stdio.h>
#include <stdlib.h>
#include <string.h>

#define HIGH 1
#define LOW 0
#define INPUT 0
#define OUTPUT 1
#define INPUT_PULLUP 2
#define HEX 16
#define PROGMEM
#define pgm_read_byte(p) (*(const uint8_t *)(p))
#define F(text) (text)

// Names that the cores give their pins.
constexpr uint8_t A0 = 200, A1 = 201, A2 = 202, A3 = 203, A4 = 204, A5 = 205, A6 = 206, A7 = 207, A8 = 208, A9 = 209, A10 = 210,
                  A11 = 211, A12 = 212, A13 = 213;
#ifdef FAMILY_ESP8266
constexpr uint8_t D0 = 16, D1 = 5, D2 = 4, D3 = 0, D4 = 2, D5 = 14, D6 = 12, D7 = 13, D8 = 15;
#endif
#ifdef FAMILY_STM32
#define NUM_DIGITAL_PINS 200
#define PORT(P, FROM)                                                                                                      \
  constexpr uint8_t P##0 = FROM, P##1 = FROM + 1, P##2 = FROM + 2, P##3 = FROM + 3, P##4 = FROM + 4, P##5 = FROM + 5,         \
                    P##6 = FROM + 6, P##7 = FROM + 7, P##8 = FROM + 8, P##9 = FROM + 9, P##10 = FROM + 10, P##11 = FROM + 11, \
                    P##12 = FROM + 12, P##13 = FROM + 13, P##14 = FROM + 14, P##15 = FROM + 15;
PORT(PA, 0) PORT(PB, 16) PORT(PC, 32)
#endif

inline uint32_t &clockMs() { static uint32_t now = 0; return now; }
inline uint32_t millis() { return clockMs()++; }
inline void delay(uint32_t ms) { clockMs() += ms; }
inline void delayMicroseconds(uint32_t) {}
inline void pinMode(uint8_t pin, uint8_t mode) { printf("MODE %u %u\n", pin, mode); }
inline void digitalWrite(uint8_t pin, uint8_t level) { printf("WRITE %u %u\n", pin, level); }
#define CHANGE 4
#define digitalPinToInterrupt(pin) (pin)
inline uint32_t micros() { return clockMs() * 1000; }
inline void noInterrupts() {}
inline void interrupts() {}
// The echo's edge comes when its interrupt is asked for, and again at every look: what it times is not looked at here.
inline void attachInterrupt(uint8_t pin, void (*)(), int mode) { printf("INTERRUPT %u %d\n", pin, mode); }
inline int analogRead(uint8_t) { return 512; }
// A pin that somebody pulls low for a while, from outside: its number, from and until which millisecond.
inline int digitalRead(uint8_t pin) {
  static const char *low = getenv("HELD_LOW");
  unsigned which = 0, from = 0, until = 0;
  if (low && sscanf(low, "%u:%u:%u", &which, &from, &until) == 3 && pin == which) return clockMs() < from || clockMs() >= until;
  return 1;
}
inline uint32_t pulseIn(uint8_t, uint8_t, uint32_t) { return 2436; }

#define constrain(v, low, high) ((v) < (low) ? (low) : (v) > (high) ? (high) : (v))
inline void analogWrite(uint8_t pin, int duty) { printf("DUTY %u %d\n", pin, duty); }
// Some cores take the frequency only: those have no length of their own here.
inline void tone(uint8_t pin, unsigned hz) { printf("TONE %u %u\n", pin, hz); }
inline void noTone(uint8_t pin) { printf("TONE %u 0\n", pin); }
#define SERIAL_8N1 0x800001c
#include "strip-pins.h"

struct Print {
  virtual ~Print() {}
  virtual size_t write(uint8_t) { return 1; }
  virtual size_t write(const uint8_t *list, size_t n) {
    for (size_t i = 0; i < n; i++) write(list[i]);
    return n;
  }
};
struct Stream : Print {
  virtual int available() = 0;
  virtual int read() = 0;
};
// A serial port of the chip: what comes in is fed, what goes out is written down.
struct Port : Stream {
  const char *name;
  explicit Port(const char *n) : name(n) {}
  static const uint8_t *&fed() { static const uint8_t *bytes = nullptr; return bytes; }
  static size_t &left() { static size_t n = 0; return n; }
  void begin(uint32_t baud, uint32_t = 0, int rx = -1, int tx = -1) { printf("PORT %s %u %d %d\n", name, (unsigned)baud, rx, tx); }
  void setRX(int pin) { printf("PORT %s RX %d\n", name, pin); }
  void setTX(int pin) { printf("PORT %s TX %d\n", name, pin); }
  void setPins(int rx, int tx) { printf("PORT %s PINS %d %d\n", name, rx, tx); }
  int available() override { return left() > 0; }
  int read() override { return left() ? (left()--, *fed()++) : -1; }
  void flush() { printf("FLUSHED %s\n", name); }
  using Print::write;
  size_t write(const uint8_t *list, size_t n) override {
    printf("SENT %s", name);
    for (size_t i = 0; i < n; i++) printf(" %02x", list[i]);
    printf("\n");
    return n;
  }
};
static Port Serial1("Serial1"), Serial2("Serial2"), Serial3("Serial3"), Serial4("Serial4"), Serial5("Serial5");

// Cores that make a port of any two pins.
struct HardwareSerial : Port {
  HardwareSerial(int rx, int tx) : Port("made") { printf("PORT made %d %d\n", rx, tx); }
};

struct Console {
  void begin(uint32_t) {}
  void flush() {}
  explicit operator bool() const { return true; }
  // What somebody types, in the order of typing.
  static const char *&typed() { static const char *keys = ""; return keys; }
  int available() { return *typed() != 0; }
  int read() { return *typed() ? *typed()++ : -1; }
  void print(const char *t) { printf("%s", t); }
  void print(char c) { printf("%c", c); }
  void print(long v, int base = 10) { printf(base == 16 ? "%lX" : "%ld", v); }
  void print(unsigned long v, int base = 10) { printf(base == 16 ? "%lX" : "%lu", v); }
  void print(int v, int base = 10) { print((long)v, base); }
  void print(unsigned v, int base = 10) { print((unsigned long)v, base); }
  void println(long v) { printf("%ld\n", v); }
  void println(unsigned long v) { printf("%lu\n", v); }
  void println(int v) { printf("%d\n", v); }
  void println(unsigned v) { printf("%u\n", v); }
  void println(const char *t) { printf("%s\n", t); }
};
static Console Serial;

#if defined(FAMILY_IMXRT) || defined(FAMILY_KL26)
// Cores that are a keyboard, an instrument and a game controller by themselves.
#include "Keyboard.h"
struct UsbMidi {
  void sendNoteOn(uint8_t n, uint8_t v, uint8_t c) { printf("NOTE %u %u %u\n", n, v, c); }
  void sendNoteOff(uint8_t n, uint8_t v, uint8_t c) { printf("NOTE OFF %u %u %u\n", n, v, c); }
  void sendControlChange(uint8_t k, uint8_t v, uint8_t c) { printf("CONTROL %u %u %u\n", k, v, c); }
};
static UsbMidi usbMIDI;
struct Pad {
  void button(uint8_t k, bool down) { printf("BUTTON %u %d\n", k, down); }
  void X(unsigned v) { printf("AXIS x %u\n", v); }
  void Y(unsigned v) { printf("AXIS y %u\n", v); }
  void Z(unsigned v) { printf("AXIS z %u\n", v); }
  void Zrotate(unsigned v) { printf("AXIS r %u\n", v); }
  void sliderLeft(unsigned v) { printf("AXIS l %u\n", v); }
  void sliderRight(unsigned v) { printf("AXIS R %u\n", v); }
};
static Pad Joystick;
#endif
