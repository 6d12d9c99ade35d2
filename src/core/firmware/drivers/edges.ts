/** Interrupts of pins in C++: on AVR the change interrupts of whole ports, else the pin's own. */
export const EDGES = `#ifndef IRAM_ATTR
#define IRAM_ATTR
#endif

// Who wants to know at once when a pin changes: all of them are asked at every change.
typedef void (*OnEdge)();
static OnEdge onEdges[8];
static uint8_t onEdgeCount = 0;
static void IRAM_ATTR __attribute__((unused)) edgesCame() {
  for (uint8_t i = 0; i < onEdgeCount; i++) onEdges[i]();
}
#ifdef __AVR__
ISR(PCINT0_vect) { edgesCame(); }
#ifdef PCINT1_vect
ISR(PCINT1_vect, ISR_ALIASOF(PCINT0_vect));
#endif
#ifdef PCINT2_vect
ISR(PCINT2_vect, ISR_ALIASOF(PCINT0_vect));
#endif
#endif
// False for a pin that can't tell.
static bool __attribute__((unused)) watchEdges(uint8_t pin, OnEdge f) {
  bool known = false;
  for (uint8_t i = 0; i < onEdgeCount; i++) known |= onEdges[i] == f;
  if (!known) {
    if (onEdgeCount == 8) return false;
    onEdges[onEdgeCount++] = f;
  }
#ifdef __AVR__
  if (digitalPinToPCICR(pin) != nullptr) {
    *digitalPinToPCMSK(pin) |= 1 << digitalPinToPCMSKbit(pin);
    *digitalPinToPCICR(pin) |= 1 << digitalPinToPCICRbit(pin);
    return true;
  }
  if (digitalPinToInterrupt(pin) == NOT_AN_INTERRUPT) return false;
#endif
  attachInterrupt(digitalPinToInterrupt(pin), edgesCame, CHANGE);
  return true;
}`;
