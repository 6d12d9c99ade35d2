// The part of the cores' keyboard library that generated sketches use.
#pragma once
#include "Arduino.h"
struct Keys {
  void begin() { printf("KEYBOARD\n"); }
  void press(uint16_t key) { printf("PRESS %u\n", key); }
  void release(uint16_t key) { printf("RELEASE %u\n", key); }
};
static Keys Keyboard;
