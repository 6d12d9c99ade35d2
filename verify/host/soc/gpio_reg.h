// Registers of the pins as that family names them.
#pragma once
#define GPIO_OUT_W1TS_REG (&pinsSet)
#define GPIO_OUT_W1TC_REG (&pinsClear)
#define GPIO_OUT1_W1TS_REG (&pinsSet)
#define GPIO_OUT1_W1TC_REG (&pinsClear)
