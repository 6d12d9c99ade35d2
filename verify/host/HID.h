// The part of the cores' HID library that generated sketches use. Every report is written down.
#pragma once
#include "Arduino.h"
struct HIDSubDescriptor {
  const void *data;
  uint16_t length;
  HIDSubDescriptor(const void *d, uint16_t l) : data(d), length(l) {}
};
struct Hid {
  void AppendDescriptor(HIDSubDescriptor *d) { printf("DESCRIPTOR %u\n", d->length); }
  int SendReport(uint8_t id, const void *data, int len) {
    printf("REPORT %u", id);
    for (int i = 0; i < len; i++) printf(" %02x", ((const uint8_t *)data)[i]);
    printf("\n");
    return len;
  }
};
inline Hid &HID() { static Hid h; return h; }
