#pragma once
#include <stdio.h>
inline void gpio_put(unsigned pin, int value) { static int n = 0; if (n++ < 2) printf("STRIP %u %d\n", pin, value); }
inline void busy_wait_at_least_cycles(uint32_t) {}
