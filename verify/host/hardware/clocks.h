#pragma once
#include <stdint.h>
enum { clk_sys = 5 };
inline uint32_t clock_get_hz(int) { return 125000000; }
