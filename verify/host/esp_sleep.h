// Sleep as that family documents it, for compiling alone.
#pragma once
#include <stdint.h>
inline int esp_sleep_enable_timer_wakeup(uint64_t) { return 0; }
inline int esp_light_sleep_start() { return 0; }
