#pragma once
#include <Arduino.h>

/** The sound port of the RP2040 core, as its documentation has it. */
class I2S {
  int turn = 0;

 public:
  explicit I2S(int = OUTPUT) {}
  bool setBCLK(int) { return true; }
  bool setDATA(int) { return true; }
  bool setBitsPerSample(int) { return true; }
  bool begin(long) { return true; }
  /** Samples that reach from -1000 to 1000 in the left half. */
  bool read32(int32_t *left, int32_t *right) {
    *left = (turn & 1 ? 1000 : -1000) * 256 + (turn & 255);
    turn++;
    *right = 0;
    return true;
  }
};
