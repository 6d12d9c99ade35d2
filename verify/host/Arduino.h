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
#define LED_BUILTIN 25
#define PROGMEM
#define pgm_read_byte(p) (*(const uint8_t *)(p))
#define F(text) (text)

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
inline int digitalRead(uint8_t) { return 1; }
inline uint32_t pulseIn(uint8_t, uint8_t, uint32_t) { return 2436; }

struct Console {
  void begin(uint32_t) {}
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
