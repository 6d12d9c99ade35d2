// A two-wire bus on which every part answers.
#pragma once
#include "Arduino.h"

struct TwoWire {
  const char *name;
  TwoWire(const char *n) : name(n) {}
  TwoWire(uint8_t sda, uint8_t scl) : name("made") { printf("MADE %u %u\n", sda, scl); }
  void setPins(uint8_t sda, uint8_t scl) { printf("PINS %s %u %u\n", name, sda, scl); }
  void setSDA(uint8_t pin) { printf("SDA %s %u\n", name, pin); }
  void setSCL(uint8_t pin) { printf("SCL %s %u\n", name, pin); }
  void setClock(uint32_t hz) { printf("CLOCK %s %lu\n", name, (unsigned long)hz); }
  void begin() { printf("BEGIN %s\n", name); }
  void begin(int sda, int scl) { printf("BEGIN %s %d %d\n", name, sda, scl); }
  void beginTransmission(uint8_t) {}
  size_t write(uint8_t) { return 1; }
  uint8_t endTransmission(bool = true) { return 0; }
  uint8_t requestFrom(uint8_t, uint8_t n) { return n; }
  int read() { return 0x60; }
};
static TwoWire Wire ("Wire");
static TwoWire Wire1 ("Wire1");
